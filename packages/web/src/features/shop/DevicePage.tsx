import { Box, Button, ToggleButton, ToggleButtonGroup, Typography, useTheme } from '@mui/material';
import { LINE_FORMS } from '@steady-gleam/core/devices';
import { useState, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { FIGURES } from '../../app/theme';
import { Answer } from '../../shared/Answer';
import { USUAL_ANGLES } from '../../shared/angles';
import { shopNow } from '../../shared/clock';
import { KeysField } from '../../shared/devices/KeysField';
import { BAUDS } from '../../shared/devices/serial';
import { putSettings, useLineSettings, type LineDevice, type LineSettings } from '../../shared/devices/settings';
import { Simulated } from '../../shared/devices/Simulated';
import { useClimate } from '../../shared/devices/useClimate';
import { sayOffered, useInbox, usePutFile } from '../../shared/devices/useInbox';
import { NO_SERIAL, useScale } from '../../shared/devices/useScale';
import { Field } from '../../ui/Field';
import { NotFoundPage } from '../../app/NotFoundPage';
import { useUnits } from '../../shared/units';
import { useNow } from '../../shared/useNow';
import { Row } from './Row';

/** The test page of a device: how it is heard here, and what was heard last. */
export function DevicePage() {
  const { device } = useParams();
  if (device === 'instrument') return <InstrumentPage />;
  if (device === 'scale') return <ScalePage />;
  if (device === 'thermometer') return <ThermometerPage />;
  return <NotFoundPage />;
}

function Page({ answer, why, children }: { answer: string; why: string; children: ReactNode }) {
  return (
    <Box sx={{ p: '18px 28px 28px', maxWidth: 980 }}>
      <Answer why={why}>{answer}</Answer>
      {children}
      <Button component={Link} to="/shop" variant="text" color="inherit" sx={{ mt: 3, px: 0.5 }}>
        Back to the shop
      </Button>
    </Box>
  );
}

function Part({ title, children }: { title: ReactNode; children: ReactNode }) {
  const { tones } = useTheme();
  return (
    <Box component="section" sx={{ borderTop: `1px solid ${tones.hairline}`, pt: 1, pb: 1.5, mt: 1.5 }}>
      <Typography variant="h2" sx={{ mb: 0.75 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

/** A figure across the bench, as it is heard. */
function Heard({ children, line }: { children: ReactNode; line?: string }) {
  return (
    <Box role="status" sx={{ my: 1 }}>
      <Box sx={{ fontFamily: FIGURES, fontSize: 52, lineHeight: 1.1, fontWeight: 600 }}>{children}</Box>
      {line ? (
        <Typography variant="body2">
          the last line as it came: <code>{line}</code>
        </Typography>
      ) : null}
    </Box>
  );
}

function InstrumentPage() {
  const inbox = useInbox();
  const put = usePutFile();
  useNow(5_000);
  const [typed, setTyped] = useState<readonly { spot: string; aspecular: number; l: number; a: number; b: number }[]>(
    [],
  );
  const answer = !inbox
    ? 'Asking the watched folder …'
    : inbox.fault
      ? inbox.fault
      : inbox.watched
        ? 'Files that come into the watched folder are offered where readings are wanted.'
        : 'No folder is watched: readings are typed, pasted, or chosen as a file.';
  return (
    <Page
      answer={answer}
      why={
        inbox?.watched
          ? `${inbox.folder ? `It is ${inbox.folder}. ` : ''}A file is offered once it is written to its end; nothing in the folder is changed or deleted.`
          : 'Let the instrument’s own program save CSV, CGATS or XML into a folder, and start with STEADY_GLEAM_INBOX=that folder.'
      }
    >
      {inbox?.watched ? (
        <Part title="What came in">
          {inbox.files.length ? null : (
            <Typography>Nothing waits. Save a reading there, and it stands here.</Typography>
          )}
          <Box component="ul" aria-label="Files that wait" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {inbox.files.map((file) => (
              <Row key={file.id}>
                <Typography sx={{ flex: '1 1 320px' }}>
                  {sayOffered(file, shopNow())}
                  {file.fault ? `. ${file.fault}` : ''}
                </Typography>
                <Button variant="text" color="inherit" onClick={() => put.mutate({ id: file.id, state: 'aside' })}>
                  Lay it aside
                </Button>
              </Row>
            ))}
          </Box>
          {inbox.unfinished.map((u) => (
            <Typography key={u.name} role="status">
              {u.said}
            </Typography>
          ))}
          {put.error ? <Typography role="alert">{put.error.message}</Typography> : null}
        </Part>
      ) : null}
      <Part title="An instrument that types">
        <KeysField angles={USUAL_ANGLES} onRead={(readings) => setTyped(readings.map((r) => ({ ...r })))} />
        {typed.length ? (
          <Box component="ul" aria-label="What it typed" sx={{ fontFamily: FIGURES, pl: 2.5 }}>
            {typed.map((r) => (
              <li key={`${r.spot}/${r.aspecular}`}>
                spot {r.spot}, {r.aspecular}°: L* {r.l}, a* {r.a}, b* {r.b}
              </li>
            ))}
          </Box>
        ) : null}
      </Part>
      <Part title={<Simulated>the simulated instrument</Simulated>}>
        <Typography>
          It is always there, for try-outs alone:{' '}
          <Link to="/try-out" style={{ color: 'inherit' }}>
            begin one
          </Link>
          , and it reads target, rungs and looks, with the noise, the bias and now and then the wrong angle of a real
          one.
        </Typography>
      </Part>
    </Page>
  );
}

/** How a device with a cable is heard on this device. */
function LineFields({ device, settings, keys }: { device: LineDevice; settings: LineSettings; keys: boolean }) {
  return (
    <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'flex-end' }}>
      <ToggleButtonGroup
        exclusive
        value={settings.by}
        aria-label="How it is heard"
        onChange={(_, by: LineSettings['by'] | null) => by && putSettings(device, { by })}
      >
        <ToggleButton value="none">not here</ToggleButton>
        <ToggleButton value="serial">serial port</ToggleButton>
        {keys ? <ToggleButton value="keys">types like a keyboard</ToggleButton> : null}
      </ToggleButtonGroup>
      {device === 'scale' && settings.by !== 'none' ? (
        <Box sx={{ width: 300 }}>
          <Field
            label="Its lines"
            select
            value={settings.form}
            onChange={(e) => putSettings(device, { form: e.target.value })}
          >
            {LINE_FORMS.map((f) => (
              <option key={f.id} value={f.id}>
                {f.name}: {f.example}
              </option>
            ))}
          </Field>
        </Box>
      ) : null}
      {settings.by === 'serial' ? (
        <Box sx={{ width: 140 }}>
          <Field
            label="Speed, baud"
            select
            value={String(settings.baud)}
            onChange={(e) => putSettings(device, { baud: Number(e.target.value) })}
          >
            {BAUDS.map((b) => (
              <option key={b} value={b}>
                {b}
              </option>
            ))}
          </Field>
        </Box>
      ) : null}
    </Box>
  );
}

/** Seed of the scale on its test page. */
const TEST_SEED = 7;

function ScalePage() {
  const settings = useLineSettings('scale');
  const scale = useScale(null);
  const mock = useScale(TEST_SEED);
  const [line, setLine] = useState('');
  return (
    <Page
      answer={
        settings.by === 'none'
          ? 'No scale is heard on this device.'
          : scale.fault
            ? scale.fault
            : scale.weighed
              ? `The scale shows ${scale.weighed.grams.toFixed(1)} g.`
              : settings.by === 'serial'
                ? 'Connect the scale, and put something on it.'
                : 'Put something on the scale, and press its key.'
      }
      why="The mix room pours by it: a bar to the next mark, called at the figure, and what went over brings the others up. Grams only; how it is heard is kept on this device, since the cable is."
    >
      <LineFields device="scale" settings={settings} keys />
      {scale.connect ? (
        <Button variant="contained" sx={{ mt: 1.5 }} onClick={scale.connect}>
          Connect the scale
        </Button>
      ) : null}
      {scale.typed ? (
        <Box sx={{ width: 380, mt: 1.5 }}>
          <Field
            label="Leave the cursor here and press the scale’s key"
            value={line}
            onChange={(e) => setLine(e.target.value)}
            onKeyDown={(e) => {
              if (e.key !== 'Enter') return;
              scale.typed!(line);
              setLine('');
            }}
          />
        </Box>
      ) : null}
      {settings.by === 'none' ? null : (
        <Heard line={scale.line}>
          {scale.weighed ? `${scale.weighed.grams.toFixed(1)} g${scale.weighed.stable ? ', rests' : ', moves'}` : '– g'}
        </Heard>
      )}
      <Part title={<Simulated>the simulated scale</Simulated>}>
        <Typography>
          It stands in try-outs: a can runs while it is held, dribbles after, and the figure creeps.
        </Typography>
        <Heard>{mock.weighed ? `${mock.weighed.grams.toFixed(1)} g` : '– g'}</Heard>
        <Button
          variant="outlined"
          sx={{ touchAction: 'none' }}
          onPointerDown={() => mock.hold?.('pour')}
          onPointerUp={() => mock.hold?.('up')}
          onPointerLeave={() => mock.hold?.('up')}
        >
          Hold to pour
        </Button>
      </Part>
    </Page>
  );
}

function ThermometerPage() {
  const settings = useLineSettings('climate');
  const units = useUnits();
  const { climate, fault, connect } = useClimate(null);
  const mock = useClimate('test').climate;
  const say = (c: NonNullable<typeof climate>) =>
    `${units.say('temperature', c.airC)}, ${Math.round(100 * c.humidity)} %${c.surfaceC === null ? '' : `, part ${units.say('temperature', c.surfaceC)}`}`;
  return (
    <Page
      answer={
        settings.by === 'none'
          ? 'No thermometer is heard on this device.'
          : fault || (climate ? `It says ${say(climate)}.` : 'Connect the thermometer.')
      }
      why="Plan, mix room and booth say what it is now beside what the plan counts on, and warn when the part is near its dew point. A line holds the temperature, the humidity with a percent sign, and the part’s own temperature last where it is measured."
    >
      <LineFields device="climate" settings={settings} keys={false} />
      {settings.by === 'serial' && !connect && !climate && !('serial' in navigator) ? (
        <Typography role="alert" sx={{ mt: 1 }}>
          {NO_SERIAL}
        </Typography>
      ) : null}
      {connect ? (
        <Button variant="contained" sx={{ mt: 1.5 }} onClick={connect}>
          Connect the thermometer
        </Button>
      ) : null}
      {climate ? <Heard>{say(climate)}</Heard> : null}
      <Part title={<Simulated>the simulated thermometer</Simulated>}>
        <Typography>
          It stands in try-outs: the day warms and dries till the afternoon, the part an hour behind.
        </Typography>
        {mock ? <Heard>{say(mock)}</Heard> : null}
      </Part>
    </Page>
  );
}
