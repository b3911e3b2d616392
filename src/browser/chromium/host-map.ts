/** The real place of each host, as `address:port`, by host name; `*.` stands for all subdomains. */
export type HostMap = Readonly<Record<string, string>>;
