import { build, checkNode, install, main } from './steps.mjs';

await main(async () => {
  checkNode();
  await install();
  await build();
});
