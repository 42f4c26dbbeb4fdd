/** Gives tests the text of a file, as the bundler does. */
module.exports = { process: (text) => ({ code: `module.exports = { __esModule: true, default: ${JSON.stringify(text)} };` }) };
