/** Design temperatures beside the strings they decide. */
import { TemperatureField } from '@/plan/TemperatureField';
import { Card } from '@/ui/Card';

export function TemperaturesCard() {
  return (
    <Card title="Design temperatures" className="w-[250px] shrink-0">
      <div className="flex flex-col gap-1">
        <TemperatureField which="coldest" />
        <TemperatureField which="hottest" />
        <p className="text-xs text-ink-2">
          Daylight keeps strings live: never open a connector under load.
        </p>
      </div>
    </Card>
  );
}
