import ContrastIcon from '@mui/icons-material/Contrast';
import { Box, ButtonBase, Typography, useTheme } from '@mui/material';
import {
  lazy,
  Suspense,
  use,
  useEffect,
  useRef,
  useState,
  type ReactNode,
  type Dispatch,
  type SetStateAction,
} from 'react';
import { NavLink, Outlet, useLocation, useMatch } from 'react-router';
import { LibraryProvider } from '../shared/library';
import { mayTakeByItself, takeNewBuild } from '../shared/newBuild';
import { Notice } from '../shared/Notice';
import { useReach } from '../shared/reach';
import { useUnits } from '../shared/units';
import { useJobDetail } from '../shared/useJob';
import { HEADER } from './layout';
import { PotClocks } from './PotClocks';
import { Shortcuts } from './Shortcuts';
import { Standing } from './Standing';
import { ThemeModeContext } from './themeMode';
import type { ThemeMode } from './theme';

/** Only a shop with a door needs it. */
const SignIn = lazy(async () => ({ default: (await import('../features/shop/SignIn')).SignIn }));

const RAIL = 134;

function Place({ to, end, children }: { to: string; end?: boolean; children: ReactNode }) {
  const { tones } = useTheme();
  return (
    <Box
      component={NavLink}
      to={to}
      end={end ?? false}
      sx={{
        display: 'flex',
        alignItems: 'center',
        // All places stand on a laptop's screen without scrolling, whatever stands below them; a job's own leave the others where they are.
        flex: '0 1 44px',
        minHeight: 'max(28px, 1.5em)',
        '@media (max-height: 860px)': { flexBasis: 33 },
        '@media (max-height: 790px)': { flexBasis: 31 },
        pl: '14px',
        pr: 1,
        color: 'text.primary',
        textDecoration: 'none',
        borderLeft: '5px solid transparent',
        fontFamily: 'h2.fontFamily',
        typography: 'h3',
        '&.active': { background: tones.raised, borderLeftColor: tones.pick },
        '&:hover': { background: tones.panel },
        '&:focus-visible': { outlineOffset: -3 },
      }}
    >
      {children}
    </Box>
  );
}

/** Heading of a group of places. */
function Group({ name }: { name: string }) {
  const { tones } = useTheme();
  return (
    <Typography
      variant="body2"
      component="div"
      sx={{
        borderTop: `1px solid ${tones.hairline}`,
        flex: 'none',
        pt: '3px',
        pl: '19px',
        lineHeight: '18px',
        color: 'text.secondary',
      }}
    >
      {name}
    </Typography>
  );
}

/** A try-out ends behind its curtain. */
function CurtainPlace({ id }: { id: string }) {
  const { data } = useJobDetail(id);
  return data?.job.tryOut ? <Place to={`/jobs/${id}/curtain`}>Curtain</Place> : null;
}

/** A new build is taken where one page is left for another, the booth among them: a quiet moment, with nothing half typed. */
function useNewBuild() {
  const { pathname } = useLocation();
  const shown = useRef<string | null>(null);
  useEffect(() => {
    if (shown.current === pathname) return;
    shown.current = pathname;
    if (mayTakeByItself()) void takeNewBuild();
  }, [pathname]);
}

/** The rail of places and the page beside it. Places of a job appear when one is open. */
export function Shell() {
  const { tones } = useTheme();
  const { mode, toggle } = use(ThemeModeContext);
  const [keys, setKeys] = useState(false);
  const { isLocked } = useReach();
  useNewBuild();
  const practising = useMatch('/practice/*');
  const open = useMatch('/jobs/:id/*');
  const id = open && open.params.id !== 'new' ? open.params.id : null;
  return (
    <Box sx={{ display: 'flex', minHeight: '100vh' }}>
      <Box
        component="nav"
        aria-label="Places"
        sx={{
          width: RAIL,
          flex: 'none',
          borderRight: `1px solid ${tones.hairline}`,
          display: 'flex',
          flexDirection: 'column',
          position: 'sticky',
          top: 0,
          height: '100vh',
        }}
      >
        <Box
          sx={{
            height: HEADER,
            borderBottom: `1px solid ${tones.hairline}`,
            display: 'flex',
            alignItems: 'center',
            pl: '19px',
          }}
        >
          <Typography component="div" sx={{ typography: 'h2', fontStretch: '100%', fontWeight: 760, lineHeight: 1.02 }}>
            Steady
            <br />
            Gleam
          </Typography>
        </Box>
        <Box sx={{ flex: 1, minHeight: 0, overflowY: 'auto', display: 'flex', flexDirection: 'column' }}>
          <Place to="/" end>
            Jobs
          </Place>
          <Place to="/bank">Bank</Place>
          <Place to="/materials">Materials</Place>
          <Place to="/products">Products</Place>
          <Place to="/faults">Faults</Place>
          <Place to="/practice">Practice</Place>
          <Place to="/shop">Shop</Place>
          {practising ? (
            <>
              <Group name="Lessons" />
              <Place to="/practice" end>
                Gun
              </Place>
              <Place to="/practice/count">Count</Place>
              <Place to="/practice/mix">Mix</Place>
            </>
          ) : null}
          {id ? (
            <>
              <Group name="The colour" />
              <Place to={`/jobs/${id}/target`}>Target</Place>
              <Place to={`/jobs/${id}/map`}>Match map</Place>
              <Place to={`/jobs/${id}/recipes`}>Recipes</Place>
              <Place to={`/jobs/${id}/sample`}>Sample</Place>
              <Place to={`/jobs/${id}/layers`}>Layers</Place>
              <Place to={`/jobs/${id}/card`}>Let-down</Place>
              <Group name="The job" />
              <Place to={`/jobs/${id}/pieces`}>Pieces</Place>
              <Place to={`/jobs/${id}/mix`}>Mix room</Place>
              <Place to={`/jobs/${id}/plan`}>Spray plan</Place>
              <Place to={`/jobs/${id}/booth`}>Booth</Place>
              <Place to={`/jobs/${id}/spray`}>On the job</Place>
              <Place to={`/jobs/${id}/inspect`}>Inspect</Place>
              <CurtainPlace id={id} />
            </>
          ) : null}
        </Box>
        <PotClocks />
        <Standing />
        <RailFoot setKeys={setKeys} mode={mode} toggle={toggle} />
      </Box>
      <Shortcuts open={keys} onOpen={setKeys} />
      <Box component="main" sx={{ flex: 1, minWidth: 0 }}>
        {isLocked ? (
          <Suspense>
            <SignIn />
          </Suspense>
        ) : (
          <LibraryProvider waiting={<Notice title="Opening the shop …" />}>
            <Outlet />
          </LibraryProvider>
        )}
      </Box>
    </Box>
  );
}

interface RailFootProps {
  readonly setKeys: Dispatch<SetStateAction<boolean>>;
  readonly mode: ThemeMode;
  readonly toggle: () => void;
}

/** Units, shortcuts and the way out, at the foot of the rail. */
function RailFoot({ setKeys, mode, toggle }: RailFootProps) {
  const units = useUnits();
  const { tones } = useTheme();
  return (
    <Box sx={{ display: 'flex', borderTop: `1px solid ${tones.hairline}` }}>
      {[
        {
          name: `Units: ${units.name('volume')} and ${units.name('film')}; switch to ${units.system === 'metric' ? 'US' : 'metric'}`,
          shown: units.system === 'metric' ? 'ml' : 'oz',
          act: units.toggle,
        },
        { name: 'Keys: ?', shown: '?', act: () => setKeys(true) },
        {
          name: mode === 'bench' ? 'Dim for booth' : 'Bench light',
          shown: <ContrastIcon sx={{ fontSize: 20 }} />,
          act: toggle,
        },
      ].map((b, k) => (
        <ButtonBase
          key={k}
          onClick={b.act}
          aria-label={b.name}
          title={b.name}
          sx={{
            minHeight: 44,
            flex: 1,
            minWidth: 44,
            fontSize: 15,
            borderLeft: k ? `1px solid ${tones.hairline}` : 0,
          }}
        >
          {b.shown}
        </ButtonBase>
      ))}
    </Box>
  );
}
