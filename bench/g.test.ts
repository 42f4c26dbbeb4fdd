import { readCatalogue } from '@roof-chart/catalogue/readCatalogue';
import { buildInstance } from '@roof-chart/core/allocate/buildInstance';
import { solve } from '@roof-chart/core/allocate/solve';
import { indexSheets } from '@roof-chart/core/sheets/sheetIndex';
import { join } from 'node:path';
import { appendFileSync } from 'node:fs';
import { planOf } from './growth';
import { largeBoard } from './largeBoard';
const sheets = indexSheets([largeBoard(), ...readCatalogue(join(__dirname, '../packages/catalogue'))]);
test('x', () => {
  for (const [board, sizes] of [[largeBoard().id,[5,10,20,40,80,120,200]],['rp2040-stick-40',[5,10,20,30,40]]] as const) for (const n of sizes) {
    const plan = planOf(n, board, sheets);
    const t=performance.now(); const inst=buildInstance(plan,sheets,sheets.boards.get(board)!); const b=performance.now()-t; const r=solve(inst,{stop:()=>performance.now()-t>3000});
    appendFileSync('/tmp/g.log', `${board} ${n} items ${inst.items.length} members ${inst.members.length} ctrl ${inst.controllers.length} res ${inst.resources.length} build ${b.toFixed(1)} total ${(performance.now()-t).toFixed(1)} nodes ${r.nodes} ${r.proved} ${JSON.stringify(r.costs)} ${JSON.stringify(r.bound)}\n`);
  }
}, 100000);
