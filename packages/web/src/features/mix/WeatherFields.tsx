import type { StoredGun } from '@steady-gleam/contracts';
import { useState } from 'react';
import { Field } from '../../ui/Field';
import { MeasureField } from '../../ui/MeasureField';
import { numberIn } from '../../shared/numberIn';
import type { MixRoom } from './useMixRoom';

/** Temperature and humidity as they are typed, kept when the field is left. */
export function useWeather({ mixing, setMixing }: Pick<MixRoom, 'mixing' | 'setMixing'>) {
  const [typed, setTyped] = useState<{ temperatureC?: string; humidity?: string }>({});
  return {
    temperatureC: typed.temperatureC ?? String(mixing.temperatureC),
    humidity: typed.humidity ?? String(Math.round(mixing.humidity * 100)),
    /** What was typed gives way to what is kept. */
    forget: () => setTyped({}),
    onTemperature: (temperatureC: string) => setTyped((old) => ({ ...old, temperatureC })),
    onHumidity: (humidity: string) => setTyped((old) => ({ ...old, humidity })),
    keepTemperature: () =>
      typed.temperatureC !== undefined && setMixing(() => ({ temperatureC: numberIn(typed.temperatureC) })),
    keepHumidity: () => typed.humidity !== undefined && setMixing(() => ({ humidity: numberIn(typed.humidity) / 100 })),
  };
}

export type Weather = ReturnType<typeof useWeather>;

/** How warm it is where it is sprayed, and with which gun. */
export function WeatherFields({
  room: { mixing, setMixing, mixingFaults, gun },
  weather,
  guns,
}: {
  room: MixRoom;
  weather: Weather;
  guns: readonly StoredGun[];
}) {
  return (
    <>
      <MeasureField
        measure="temperature"
        label="In the booth"
        value={weather.temperatureC}
        onValue={weather.onTemperature}
        onBlur={weather.keepTemperature}
        error={mixingFaults['temperatureC']}
      />
      <Field
        label="Gun"
        select
        value={mixing.gunId ?? ''}
        onChange={(e) => setMixing(() => ({ gunId: e.target.value || null }))}
      >
        <option value="">{gun && mixing.gunId === null ? `${gun.name}, as the card` : 'not said'}</option>
        {guns.map((g) => (
          <option key={g.gun.id} value={g.gun.id}>
            {g.gun.name}
          </option>
        ))}
      </Field>
    </>
  );
}
