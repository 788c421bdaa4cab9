import { useEffect, useLayoutEffect, useRef, useState, type ChangeEvent, type SyntheticEvent } from 'react';
import {
  get,
  set as putAt,
  useForm,
  useWatch,
  type Control,
  type DefaultValues,
  type FieldErrors,
  type FieldValues,
  type Path,
  type PathValue,
} from 'react-hook-form';
import { ApiFailure, faultOf } from '../shared/apiClient';
import { formPath, type Checked, type Faults } from '../shared/checkWith';

interface TypedFormOptions<V extends FieldValues, T> {
  /** Everything as text, as it is typed. */
  readonly start: V;
  readonly check: (typed: V) => Checked<T> | Promise<Checked<T>>;
  readonly keep: (value: T) => Promise<unknown>;
  /** The field that a path of what the server says stands for. */
  readonly fieldOf?: (path: string) => string;
  /**
   * What is typed comes to, as far as it is compared. With it the form follows `start` while it is open: what is kept, or was changed
   * elsewhere, stands in it, unless something else was typed meanwhile.
   */
  readonly meant?: (typed: V) => unknown;
}

/** A form that is typed in texts, checked as a whole and kept by its button. */
export interface TypedForm<V extends FieldValues, T = unknown> {
  readonly control: Control<V, unknown, T>;
  readonly values: V;
  readonly set: <P extends Path<V>>(name: P, value: PathValue<V, P>) => void;
  /** Everything anew, as typed. */
  readonly setAll: (values: V) => void;
  /** What is wrong at a field; the empty path is the form as a whole. */
  readonly fault: (path: string) => string | undefined;
  /** What a `Field` takes. */
  readonly text: (name: Path<V>) => {
    readonly value: string;
    readonly onChange: (e: ChangeEvent<HTMLInputElement>) => void;
    readonly error: string | undefined;
  };
  /** What a `MeasureField` takes. */
  readonly measure: (name: Path<V>) => {
    readonly value: string;
    readonly onValue: (metric: string) => void;
    readonly error: string | undefined;
  };
  readonly onSubmit: (e: SyntheticEvent<HTMLElement>) => void;
  /** Checks and keeps in another way than the form's own. */
  readonly keepBy: (keep: (value: T) => Promise<unknown>) => (e: SyntheticEvent<HTMLElement>) => void;
  /** Does something else that can be refused, for instance removing: what is refused is said as after keeping. */
  readonly run: (act: () => Promise<unknown>) => Promise<void>;
  /** What is typed comes to something else than `start`, where the form knows what it comes to. */
  readonly changed: boolean;
  /** What is wrong, or was refused, and belongs to no field. */
  readonly failure: string | null;
  readonly busy: boolean;
}

/** What was refused and not yet looked at: where its field may be marked, and what is said where none is. */
interface Refused {
  readonly place: HTMLElement | undefined;
  readonly said: string | null;
}

/** Path in the errors of what belongs to the form as a whole; the library's own name for it does not keep a form from being kept. */
const WHOLE = 'whole';

/** The first sentence among errors, however deep it stands. */
function firstSaid(errors: unknown): string | null {
  if (errors === null || typeof errors !== 'object') return null;
  if ('message' in errors && typeof errors.message === 'string') return errors.message;
  for (const own of Object.values(errors)) {
    const said = firstSaid(own);
    if (said !== null) return said;
  }
  return null;
}

function errorsOf<V extends FieldValues>(faults: Faults): FieldErrors<V> {
  const errors = {};
  for (const [path, message] of Object.entries(faults)) putAt(errors, path || WHOLE, { type: 'typed', message });
  return errors;
}

/**
 * The one way a form is kept: react-hook-form holds what was typed, `check` turns it into what is kept or into sentences at its
 * fields, and what the server refuses is said at its fields too. After a first try the sentences follow what is typed; the first wrong
 * field has the focus.
 */
export function useTypedForm<V extends FieldValues, T>({
  start,
  check,
  keep,
  fieldOf = formPath,
  meant,
}: TypedFormOptions<V, T>): TypedForm<V, T> {
  const form = useForm<V, unknown, T>({
    defaultValues: start as DefaultValues<V>,
    resolver: async (typed) => {
      const found = await check(typed);
      return found.ok ? { values: found.value, errors: {} } : { values: {}, errors: errorsOf<V>(found.faults) };
    },
  });
  const { errors, isSubmitted, isSubmitting } = form.formState;
  const values = useWatch({ control: form.control }) as V;
  const [failure, setFailure] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [refused, setRefused] = useState<Refused | null>(null);
  // Only once the fields are drawn with what is wrong now can be seen whether one of them shows it: that one has the focus.
  useEffect(() => {
    if (!refused || isSubmitting) return undefined;
    const frame = requestAnimationFrame(() => {
      const marked = refused.place?.querySelector<HTMLElement>('[aria-invalid=true]');
      if (marked) marked.focus();
      else setFailure(refused.said);
    });
    return () => cancelAnimationFrame(frame);
  }, [refused, isSubmitting]);
  const [typed, now] = meant ? [values, start].map((v) => JSON.stringify(meant(v))) : [];
  const from = useRef(now);
  useLayoutEffect(() => {
    if (now === from.current) return;
    const asItWas = typed === from.current || typed === now;
    from.current = now;
    if (asItWas) form.reset(start);
  });
  const quiet = () => {
    setFailure(null);
    setRefused(null);
  };
  const run = async (act: () => Promise<unknown>, place?: HTMLElement) => {
    setBusy(true);
    quiet();
    try {
      await act();
    } catch (error) {
      if (!(error instanceof ApiFailure)) throw error;
      for (const [path, message] of Object.entries(error.fields))
        form.setError((fieldOf(path) || WHOLE) as Path<V>, { type: 'refused', message });
      setRefused({ place, said: faultOf(error) });
    } finally {
      setBusy(false);
    }
  };
  // One field can put another right: after a first try the whole is looked at again.
  const again = () => {
    quiet();
    if (isSubmitted) void form.trigger();
  };
  const set: TypedForm<V>['set'] = (name, value) => {
    form.setValue(name, value, { shouldDirty: true });
    again();
  };
  const setAll = (all: V) => {
    form.reset(all, { keepDefaultValues: true, keepErrors: true, keepIsSubmitted: true, keepSubmitCount: true });
    again();
  };
  const fault = (path: string) => {
    const found: unknown = get(errors, path || WHOLE);
    const message: unknown = found && typeof found === 'object' && 'message' in found ? found.message : undefined;
    return typeof message === 'string' ? message : undefined;
  };
  const valueOf = (name: Path<V>): string => {
    const typed: unknown = get(values, name);
    return typeof typed === 'string' ? typed : '';
  };
  const keepBy: TypedForm<V, T>['keepBy'] = (by) => (e) => {
    const place = e.currentTarget.closest('form') ?? e.currentTarget;
    quiet();
    const submit = form.handleSubmit(
      (kept) => run(() => by(kept), place),
      (wrong) => setRefused({ place, said: firstSaid(wrong) }),
    );
    void submit(e);
  };
  return {
    ...{ values, set, setAll, fault, busy, changed: typed !== now },
    failure: failure ?? fault('') ?? null,
    run: (act) => run(act),
    control: form.control,
    text: (name) => ({
      value: valueOf(name),
      onChange: (e) => set(name, e.target.value as PathValue<V, Path<V>>),
      error: fault(name),
    }),
    measure: (name) => ({
      value: valueOf(name),
      onValue: (metric) => set(name, metric as PathValue<V, Path<V>>),
      error: fault(name),
    }),
    onSubmit: keepBy(keep),
    keepBy,
  };
}
