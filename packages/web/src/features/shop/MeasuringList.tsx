import { Box, Button, Typography } from '@mui/material';
import { Link } from 'react-router';
import { useInbox } from '../../shared/devices/useInbox';
import { useLineSettings, type LineSettings } from '../../shared/devices/settings';
import { countOf } from '../../shared/countOf';
import { Row } from './Row';

const HEARD: Readonly<Record<LineSettings['by'], string>> = {
  none: 'not set up on this device',
  serial: 'by serial port, on this device',
  keys: 'types like a keyboard, on this device',
};

/** Instrument, scale and thermometer: how each is heard, and its test page. */
export function MeasuringList() {
  const inbox = useInbox();
  const scale = useLineSettings('scale');
  const climate = useLineSettings('climate');
  const files = !inbox
    ? 'asking …'
    : inbox.watched
      ? `files of the watched folder${inbox.total ? `, ${countOf(inbox.total, 'file')} waiting` : ''}; or by its keys`
      : 'by its keys, or by files that are chosen; no folder is watched';
  return (
    <Box component="ul" aria-label="Measuring devices" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {(
        [
          ['Instrument', files, 'instrument'],
          ['Scale', HEARD[scale.by], 'scale'],
          ['Thermometer', HEARD[climate.by], 'thermometer'],
        ] as const
      ).map(([name, heard, path]) => (
        <Row key={path}>
          <Typography sx={{ flex: '0 0 120px', fontWeight: 640 }}>{name}</Typography>
          <Typography sx={{ flex: '1 1 220px' }}>{heard}</Typography>
          <Button component={Link} to={`/shop/devices/${path}`} variant="text" color="inherit">
            Set up and test
          </Button>
        </Row>
      ))}
    </Box>
  );
}
