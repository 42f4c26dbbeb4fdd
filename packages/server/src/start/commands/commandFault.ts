/** A failure that is told as its sentence alone. */
export class CommandFault extends Error {}
