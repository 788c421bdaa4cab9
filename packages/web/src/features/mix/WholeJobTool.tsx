import { sprayMinutes } from '@steady-gleam/core/spraying';
import type { ReactNode } from 'react';
import type { MixRoom } from './useMixRoom';
import type { Weather } from './WeatherFields';
import { WholeJobPanel } from './WholeJobPanel';

/** Every cup of the job on one page. */
export function WholeJobTool({
  room,
  weather,
  weatherFields,
  tabs,
  onShow,
}: {
  room: MixRoom;
  weather: Weather;
  weatherFields: ReactNode;
  tabs: ReactNode;
  onShow: (id: string) => void;
}) {
  const { sprayer } = room;
  return (
    <WholeJobPanel
      all={room.groups.map((g) => ({ group: g, ...room.worked(g) }))}
      area={room.area}
      transferMean={room.transfer.mean}
      coatMinutes={sprayMinutes(room.area, sprayer, { speedCmS: sprayer.speedCmS, overlap: 0.75 })}
      lands={room.lands}
      tabs={tabs}
      weatherFields={weatherFields}
      humidity={weather.humidity}
      onHumidity={weather.onHumidity}
      onHumidityDone={weather.keepHumidity}
      humidityFault={room.mixingFaults['humidity']}
      leftover={room.state.leftover}
      onLeftover={(leftover) => room.setState((old) => ({ ...old, leftover }))}
      onShow={onShow}
    />
  );
}
