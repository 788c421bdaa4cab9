import { Box, Button, Typography, useTheme } from '@mui/material';
import type { ReactNode } from 'react';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { HereNotes } from '../../shared/HereNotes';
import { Notice } from '../../shared/Notice';
import { timeSaid } from '../../shared/timeOfDay';
import { useDamaged } from '../../shared/useDamaged';
import { useNow } from '../../shared/useNow';
import { CodesForm } from './CodesForm';
import { CopiesList } from './CopiesList';
import { DevicesList } from './DevicesList';
import { MeasuringList } from './MeasuringList';
import { OnThisDevice } from './OnThisDevice';
import { sayBytes, sayShop } from './shopModel';
import { useShopPlace } from './useShopPlace';

/** A part of the page under its heading. */
function Part({ title, id, children }: { title: string; id?: string; children: ReactNode }) {
  const { tones } = useTheme();
  return (
    <Box component="section" aria-label={title} id={id} sx={{ borderTop: `1px solid ${tones.hairline}`, pt: 1, pb: 2 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

/** The shop's own place: how it is reached, who is in, what is kept, and what waits on this device. */
export function ShopPage() {
  const asked = useShopPlace();
  const now = useNow(10_000);
  const { data: place } = asked;
  if (!place)
    return (
      <Notice title={asked.error ? 'The shop could not be opened.' : 'Opening the shop …'} text={asked.error?.message}>
        {asked.error ? (
          <Button variant="contained" onClick={() => void asked.refetch()}>
            Try again
          </Button>
        ) : null}
      </Notice>
    );
  return (
    <Bench
      standalone
      side={
        <>
          <Typography variant="h2">Reach it from another device</Typography>
          <Reach addresses={place.addresses} qr={place.qr} isShop={place.isShop} />
          {place.lacks ? <Typography role="note">{place.lacks}</Typography> : null}
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            Version {place.version}
            {place.build ? `, built ${timeSaid(Date.parse(place.build), now)}` : ''}.{' '}
            {place.database === 'server'
              ? 'The data stands in PostgreSQL.'
              : 'The data stands on this program’s machine'}
            {place.database === 'embedded' && place.folder ? `: ${place.folder}.` : ''}{' '}
            {place.dataBytes === null ? '' : `${sayBytes(place.dataBytes)} with its copies`}
            {place.freeBytes === null ? '.' : `; ${sayBytes(place.freeBytes)} are free.`}
          </Typography>
          <HereNotes />
        </>
      }
    >
      <Answer why="Copies are made by themselves, once a day and before a new version touches the data, and each is read back. Keep one elsewhere too: a copy beside the data goes with its disk.">
        {sayShop(place, now, (at) => timeSaid(at, now))}
      </Answer>
      <Part title="Copies">
        <CopiesList copies={place.copies} now={now} />
      </Part>
      <Part title="Instrument, scale, thermometer">
        <MeasuringList />
      </Part>
      {place.isShop ? (
        <Part title="Devices signed in">
          <DevicesList devices={place.devices} now={now} />
        </Part>
      ) : null}
      {place.isShop ? (
        <Part title="Codes">
          <CodesForm isPasscodeSet={place.isPasscodeSet} isLookCodeSet={place.isLookCodeSet} />
        </Part>
      ) : null}
      <Part title="On this device" id="here">
        <OnThisDevice />
      </Part>
      <DamagedRows />
    </Bench>
  );
}

function Reach({ addresses, qr, isShop }: { addresses: readonly string[]; qr: string; isShop: boolean }) {
  if (!isShop)
    return (
      <Typography>
        It answers on this machine only. Start it with <code>npm start -- --shop</code> and tablets and phones of the
        shop’s network can open it, by HTTPS and with a passcode.
      </Typography>
    );
  return (
    <>
      {qr ? (
        <Box
          component="img"
          alt={`QR code of ${addresses[0]}`}
          src={`data:image/svg+xml;utf8,${encodeURIComponent(qr)}`}
          sx={{ width: 190, height: 190, display: 'block', background: '#fff' }}
        />
      ) : null}
      {addresses.map((a) => (
        <Typography key={a} sx={{ overflowWrap: 'anywhere' }}>
          {a}
        </Typography>
      ))}
      {addresses[0]?.startsWith('https:') ? (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          A new device first opens the address with http in the place of https: there it fetches the shop’s certificate.
        </Typography>
      ) : null}
    </>
  );
}

/** Rows that can't be read any more; nothing where there is none. */
function DamagedRows() {
  const { data: damaged = [] } = useDamaged();
  if (!damaged.length) return null;
  return (
    <Part title="Entries that can’t be read" id="damaged">
      <Typography>
        They are left out, and nothing of them was changed. A copy from before may still have them whole.
      </Typography>
      <Box component="ul" aria-label="Damaged" sx={{ m: 0, pl: 2.5 }}>
        {damaged.map((d) => (
          <li key={d.id}>
            {d.what} {d.name}, {d.id}
          </li>
        ))}
      </Box>
    </Part>
  );
}
