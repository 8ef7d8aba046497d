import type { Dto } from "../../api/client";
import { Fault } from "../../ui/Fault";
import { count, moment } from "../../ui/numbers";
import { Sheet } from "../../ui/Sheet";
import { useHosts } from "./useHosts";

/** The hosts of texts: what they gave, what they ask of programs, what went wrong. */
export function HostsSheet({ close }: { close: () => void }) {
  const hosts = useHosts(true);
  return (
    <Sheet
      open
      onOpenChange={close}
      width={1080}
      title="Hosts of full texts"
      hint={
        hosts.data &&
        (hosts.data.contact === null
          ? "No contact address is set (Zendle:Contact), so hosts cannot write to whoever runs this installation."
          : `Hosts are told that they can write to ${hosts.data.contact}.`)
      }
    >
      {hosts.error && <Fault error={hosts.error} again={() => void hosts.refetch()} />}
      {hosts.data?.hosts.length === 0 && <p className="text-quiet">No host has been asked for a text yet.</p>}
      {hosts.data && hosts.data.hosts.length > 0 && (
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Hosts">
          <table className="w-full text-[12.5px]">
            <thead>
              <tr className="text-left text-[11.5px] text-quiet [&>th]:pr-3 [&>th]:pb-1 [&>th]:font-normal">
                <th>host</th>
                <th className="text-right">asked</th>
                <th className="text-right">got</th>
                <th>not got</th>
                <th>robots.txt</th>
                <th className="text-right">waits asked</th>
                <th className="text-right">time</th>
                <th>asked last</th>
              </tr>
            </thead>
            <tbody>
              {hosts.data.hosts.map((h) => (
                <HostRow key={h.host} host={h} />
              ))}
            </tbody>
          </table>
        </div>
      )}
    </Sheet>
  );
}

/** What a host's rules come to, in words. */
function saysWords({ says, rules }: Dto<"HostDto">): string {
  switch (says) {
    case null:
      return "not read since the start";
    case "Nothing":
      return "no rules";
    case "Free":
      return "allows all of it";
    case "Rules":
      return rules === 1 ? "one rule" : `${count(rules)} rules`;
    case "Away":
      return "allows programs only where its rules say so";
    case "Unread":
      return "its rules cannot be read";
  }
}

function HostRow({ host: h }: { host: Dto<"HostDto"> }) {
  return (
    <tr className="border-t border-line align-top [&>td]:py-1.5 [&>td]:pr-3" data-host={h.host}>
      <td className="break-all">
        <b className="font-semibold">{h.host.replace(/^https?:\/\//, "")}</b>
        {h.restsUntil !== null && (
          <span className="block text-aside">left alone until {moment(h.restsUntil)}: it failed again and again</span>
        )}
      </td>
      <td className="text-right">{count(h.attempts)}</td>
      <td className="text-right">{count(h.got)}</td>
      <td>
        {h.notGot.length === 0
          ? "nothing"
          : h.notGot.map((o) => (
              <span key={o.word} className="block">
                {count(o.count)} × {o.word}
              </span>
            ))}
      </td>
      <td>
        {saysWords(h)}
        {h.delay > 0 && `; ${h.delay} s between requests`}
        {h.rulesAt !== null && <span className="block text-quiet">read {moment(h.rulesAt)}</span>}
      </td>
      <td className="text-right">{h.waited > 0 ? `${count(h.waited)} s` : "none"}</td>
      <td className="text-right">{(h.milliseconds / 1000).toFixed(1)} s</td>
      <td>
        {moment(h.lastAt)}
        {h.lastGotAt !== null && h.lastGotAt !== h.lastAt && (
          <span className="block text-quiet">gave a text {moment(h.lastGotAt)}</span>
        )}
      </td>
    </tr>
  );
}
