/** «writ» as a number: a studio writes one thing at a time, so nobody decides on figures that are being changed. */
export const WRITE_LOCK = 0x77726974;
/** «vest» as a number: the one advisory lock by which a server keeps a PostgreSQL database to itself. */
export const SERVER_LOCK = 0x76657374;
