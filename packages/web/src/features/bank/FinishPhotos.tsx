import { Box, Typography } from '@mui/material';
import { photoPath, type FinishDetail, type Photo } from '@steady-gleam/contracts';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { sendBytes } from '../../shared/apiClient';
import { shopIso } from '../../shared/clock';
import { FileButton } from '../../shared/FileButton';
import { newId } from '../../shared/newId';
import { shrinkPhoto } from '../../shared/shrinkPhoto';

/** Photos of what a finish was matched to, and of its card as a whole: the newest is its picture in the bank. */
export function FinishPhotos({ detail }: { detail: FinishDetail }) {
  const client = useQueryClient();
  const add = useMutation({
    mutationFn: async (file: File) => {
      const photo: Photo = { id: newId(), kind: 'target', coats: null, takenAt: shopIso() };
      await sendBytes(photoPath(detail.finish.id, photo), await shrinkPhoto(file));
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  return (
    <Box component="section" aria-label="Photos">
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
        {detail.photos.map((p) => (
          <Box
            key={p.id}
            component="img"
            src={`/api/photos/${p.id}`}
            alt="What it matches, photographed"
            loading="lazy"
            sx={{ width: 108, height: 72, objectFit: 'cover' }}
          />
        ))}
        <FileButton
          label="Photo of the finish"
          accept="image/jpeg,image/png,image/webp"
          capture="environment"
          variant="outlined"
          disabled={add.isPending}
          onFile={(file) => add.mutate(file)}
        >
          {add.isPending ? 'Sending the photo …' : 'Attach a photo'}
        </FileButton>
      </Box>
      {add.error ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {add.error.message}
        </Typography>
      ) : null}
    </Box>
  );
}
