import { shippedSheets } from '../../../tests/catalogue';
import { expectCheck, findingsOf } from '../../../tests/checkHarness';
import { add, edited, wire } from '../../../tests/makePlan';
import { newPlan, type Plan } from '../../plan/plan';
import { completeAddition, completeVerdict } from '../../review/additionNeeds';
import { waysOut } from '../../review/ways/waysOut';
import { wayCosts, wayText } from '../../text/assignmentText';
import { needsText } from '../../text/needsText';

const sheets = shippedSheets();
const bcm = (): Plan => newPlan('p', 'P', { id: 'bcm2711-sbc-40', version: 1 });
const complete = (plan: Plan, part: string) => completeAddition(plan, sheets, sheets.parts.get(part)!.sheet)!;
const endOf = (plan: Plan, key: string) => plan.wires[key]?.end;

test('on a board without analog inputs an analog part comes with a converter, and the next ones share its channels', () => {
  const joystick = complete(bcm(), 'joystick');
  expect([completeVerdict(joystick), needsText(joystick.needs!)]).toEqual(['with', 'ADC ADS1115']);
  const first = joystick.needs!.plan;
  expect([endOf(first, 'input-1:X'), endOf(first, 'input-1:Y')]).toEqual([
    { to: 'terminal', placement: 'helper-1', terminal: 'A0' },
    { to: 'terminal', placement: 'helper-1', terminal: 'A1' },
  ]);
  expect(endOf(first, 'helper-1:SDA')).toEqual({ to: 'pin', pin: 'GPIO2' });
  const soil = complete(first, 'soil-moisture-capacitive');
  expect([completeVerdict(soil), needsText(soil.needs!)]).toEqual(['with', 'ADC ADS1115 of the plan']);
  // The third part finds one channel, the fourth a new converter.
  const dial = complete(soil.needs!.plan, 'potentiometer').needs!.plan;
  const next = complete(dial, 'potentiometer');
  expect(needsText(next.needs!)).toBe('ADC ADS1115');
  expect(findingsOf(next.needs!.plan, sheets).filter(({ level }) => level !== 'hint')).toEqual([]);
});

test('six parts that have no place on that board are helped', () => {
  for (const part of [
    'joystick',
    'keypad-ladder',
    'light-photoresistor',
    'potentiometer',
    'soil-moisture-capacitive',
    'temperature-thermistor-10k',
  ])
    expect([part, completeVerdict(complete(bcm(), part))]).toEqual([part, 'with']);
});

test('where the board has one analog input the second part gets a converter, the first its pin', () => {
  const esp = newPlan('p', 'P', { id: 'esp8266-stick-30', version: 1 });
  const one = complete(esp, 'potentiometer');
  expect([completeVerdict(one), endOf(one.plan, 'input-1:WIPER')]).toEqual(['fits', { to: 'pin', pin: 'A0' }]);
  const two = complete(one.plan, 'potentiometer');
  expect([completeVerdict(two), needsText(two.needs!)]).toEqual(['with', 'ADC ADS1115']);
});

test('Assign pins offers a converter among the ways out, with what it costs', () => {
  const plan = edited(bcm(), sheets, add('p', 'potentiometer', 'Dial'));
  const [way] = waysOut(plan, sheets, { nodes: 2000 });
  expect([way!.kind, wayText(plan, sheets, way!), way!.open]).toEqual([
    'adc',
    expect.stringMatching(/^Add Analog inputs, 4 × \d+ bit, .* for Dial 2$/) as string,
    [],
  ]);
  expect(wayCosts(way!)).toMatch(/1 part more.*; each reading is a bus transfer$/);
});

test('a voltage above the supply of the converter is an error; on one rail, and of one voltage, it is none', () => {
  const at = (adc: string, dial: string): Plan =>
    edited(
      bcm(),
      sheets,
      add('c', 'adc-ads1115', 'Converter'),
      wire('c:VCC', `rail ${adc}`),
      wire('c:GND', 'ground'),
      add('p', 'potentiometer', 'Dial'),
      wire('p:VCC', `rail ${dial}`),
      wire('p:GND', 'ground'),
      { kind: 'wire', placement: 'p', terminal: 'WIPER', end: { to: 'terminal', placement: 'c', terminal: 'A0' } },
    );
  expectCheck('level-damage', at('3v3', '3v3'), sheets, []);
  expectCheck('level-damage', at('5v', '3v3'), sheets, []);
  expectCheck('level-damage', at('3v3', '5v'), sheets, [
    {
      level: 'clash',
      message: 'to-adc',
      title: expect.stringMatching(/^Dial: up to 5\.\d+ V on 2, converter maximum 3\.\d+ V$/) as string,
      remedies: [],
    },
  ]);
});
