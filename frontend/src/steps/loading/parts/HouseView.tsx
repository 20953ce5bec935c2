/** The house on its own sun: its day, its battery, and what inverters of other sizes carry. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { HouseDayChart } from '@/charts/HouseDayChart';
import { StackedMonths } from '@/charts/StackedMonths';
import { useJob } from '@/plan/JobContext';
import { Board } from '@/ui/Board';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Fitted } from '@/ui/Fitted';
import { Waiting } from '@/ui/States';
import { figure, signed } from '@/units/format';
import { houseQuery } from '../queries';
import { BatteryCard } from './BatteryCard';
import { LoadBar } from './LoadBar';

export function HouseView() {
  const { at } = useJob();
  const { data: house, error, isPlaceholderData } = useQuery(houseQuery(at));
  if (error)
    return (
      <div className="p-4">
        <p className="mb-3 text-base" role="alert">
          {error.message}
        </p>
        <LoadBar origin="" caveats={[]} />
      </div>
    );
  if (!house)
    return (
      <Waiting shows="The house’s day: its use, its sun, what is stored, sold and bought.">
        Working out the house
      </Waiting>
    );
  return (
    <div
      aria-busy={isPlaceholderData}
      className={`flex min-h-0 grow flex-col ${isPlaceholderData ? 'opacity-50' : ''}`}
    >
      <LoadBar origin={house.origin} caveats={house.caveats} />
      <div className="beside min-h-0 grow gap-3 overflow-y-auto p-3">
        <section aria-label="The house’s day" className="min-w-0 grow">
          <Days house={house} />
          <ul className="mt-1 text-sm">
            {house.told.map((sentence) => (
              <li key={sentence}>{sentence}</li>
            ))}
          </ul>
        </section>
        <div className="w-[254px] shrink-0">
          <BatteryCard battery={house.battery} eventsTold={house.events_told} />
        </div>
      </div>
      <Board heightPx={240}>
        <YearCard house={house} />
        <Card title="Months, kWh" className="w-[256px] shrink-0">
          <StackedMonths
            label="What the house makes, uses and buys by month"
            stacks={stacksOf(house.months)}
            widthPx={232}
            heightPx={140}
          />
        </Card>
        <SizesCard sizes={house.sizes} />
      </Board>
    </div>
  );
}

function Days({ house }: { house: Schemas['HouseReport'] }) {
  const [number, setNumber] = useState(0);
  const day = house.days[number];
  if (!day) return null;
  return (
    <>
      <div className="mb-1 flex flex-wrap gap-1.5">
        {house.days.map((d, i) => (
          <Button
            key={d.title}
            weight={i === number ? 'pressed' : 'plain'}
            aria-pressed={i === number}
            onClick={() => setNumber(i)}
          >
            {d.title}
          </Button>
        ))}
      </div>
      <Fitted mostPx={560}>
        {(widthPx) => (
          <HouseDayChart
            label={`${day.title}: the house’s use, its sun and what is bought`}
            loadKw={day.load_kw}
            madeKw={day.made_kw}
            batteryKw={day.battery_kw}
            boughtKw={day.bought_kw}
            widthPx={widthPx}
            heightPx={232}
          />
        )}
      </Fitted>
    </>
  );
}

function stacksOf(months: readonly Schemas['HouseMonth'][]) {
  const own = {
    title: 'used at home',
    colour: 'var(--color-patina)',
    kwh: months.map((m) => m.own_use_kwh),
  };
  return [
    [
      own,
      { title: 'sent out', colour: 'var(--color-straw)', kwh: months.map((m) => m.sent_kwh) },
      { title: 'held back', colour: 'var(--color-stop)', kwh: months.map((m) => m.held_kwh) },
    ],
    [own, { title: 'bought', colour: 'var(--color-field)', kwh: months.map((m) => m.bought_kwh) }],
  ];
}

type Told = Schemas['HouseTold'];

const ROWS: { title: string; of: (t: Told) => string }[] = [
  { title: 'Made', of: (t) => figure(t.made_kwh) },
  { title: 'Saved from clipping', of: (t) => figure(t.from_clipped_kwh) },
  { title: 'Used at home', of: (t) => figure(t.own_use_kwh) },
  { title: 'Share of the use', of: (t) => `${figure(t.covered_frac * 100)} %` },
  { title: 'Sent out', of: (t) => figure(t.sent_kwh + t.sold_kwh) },
  { title: 'Bought', of: (t) => figure(t.bought_kwh) },
  { title: 'Held back', of: (t) => figure(t.held_kwh) },
  { title: 'Lost in it', of: (t) => figure(t.lost_kwh) },
  { title: 'Left in it', of: (t) => figure(t.left_kwh) },
  {
    title: 'Worth a year',
    of: (t) => (t.worth_cents === null ? '?' : figure(t.worth_cents / 100)),
  },
];

function YearCard({ house }: { house: Schemas['HouseReport'] }) {
  const { alone, with_battery: stored } = house;
  return (
    <Card title="In the year, kWh" scrolls className="w-[250px] shrink-0">
      <table className="w-full text-xs">
        <thead>
          <tr className="text-right text-ink-2">
            <td />
            <th className="font-normal">alone</th>
            {stored && <th className="pl-2 font-normal">battery</th>}
            {stored && <th className="pl-2 font-normal">more</th>}
          </tr>
        </thead>
        <tbody>
          {ROWS.map(({ title, of }) => (
            <tr
              key={title}
              className="border-t border-rule text-right font-figure whitespace-nowrap"
            >
              <th scope="row" className="py-px text-left font-medium">
                {title}
              </th>
              <td>{of(alone)}</td>
              {stored && <td className="pl-2">{of(stored)}</td>}
              {stored && <td className="pl-2 text-ink-2">{change(of(alone), of(stored))}</td>}
            </tr>
          ))}
        </tbody>
      </table>
    </Card>
  );
}

/** The difference of two figures as they stand; nothing where one is no figure. */
function change(one: string, two: string): string {
  const [a, b] = [one, two].map((t) => Number(t.replace(' %', '').replaceAll(' ', '')));
  if (a === undefined || b === undefined || !Number.isFinite(a) || !Number.isFinite(b)) return '';
  return signed(b - a);
}

function SizesCard({ sizes }: { sizes: readonly Schemas['SizeCarried'][] }) {
  return (
    <Card title="Inverters of other sizes carry" scrolls className="min-w-0 grow">
      <table className="w-full text-xs">
        <thead>
          <tr className="text-right text-ink-2">
            <th className="text-left font-normal">kW</th>
            <th className="whitespace-nowrap font-normal">6–9 h</th>
            <th className="whitespace-nowrap pl-2 font-normal">17–21 h</th>
            <th className="whitespace-nowrap pl-2 font-normal">use over it</th>
            <th className="pl-2 font-normal">sent</th>
          </tr>
        </thead>
        <tbody>
          {sizes.map((s) => (
            <tr
              key={s.ac_kw}
              className={`border-t border-rule text-right font-figure ${s.now ? 'bg-copper-wash' : ''}`}
            >
              <th scope="row" className="py-px text-left font-medium">
                {figure(s.ac_kw, 2)}
                {(s.now || s.mark) && (
                  <span className="block max-w-[116px] font-sans text-xs font-normal text-ink-2">
                    {[s.now ? 'now' : '', s.mark].filter(Boolean).join(', ')}
                  </span>
                )}
              </th>
              <td className="whitespace-nowrap">{figure(s.breakfast_frac * 100)} %</td>
              <td className="whitespace-nowrap">{figure(s.evening_frac * 100)} %</td>
              <td className="whitespace-nowrap">{figure(s.over_hours)} h</td>
              <td className="whitespace-nowrap">{figure(s.sent_kwh)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Card>
  );
}
