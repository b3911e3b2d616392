/** Where hosts really are, as `address:port`, by host name; `*.` stands for all hosts below. */
export type HostMap = Readonly<Record<string, string>>;
