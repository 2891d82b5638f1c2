// Asks a YAML language server about a plan, as an editor does, with the schema that `able-twine schema` prints: what it
// underlines, what it offers and what it explains. node ask.mjs SERVER SCHEMA
import { spawn } from "node:child_process";
import { readFileSync } from "node:fs";
import { pathToFileURL } from "node:url";

const [server, schema] = process.argv.slice(2);
const process_ = spawn(process.execPath, [server, "--stdio"], { stdio: ["pipe", "pipe", "inherit"] });
const uri = "file:///vale/month-end.plan.yaml";
const settings = {
  validate: true, completion: true, hover: true, schemaStore: { enable: false },
  schemas: { [pathToFileURL(schema).href]: "*.plan.yaml" },
};
const waiting = new Map();
let told = () => {};
let next = 1;
let held = Buffer.alloc(0);

function send(message) {
  const body = Buffer.from(JSON.stringify({ jsonrpc: "2.0", ...message }));
  process_.stdin.write(`Content-Length: ${body.length}\r\n\r\n`);
  process_.stdin.write(body);
}
function ask(method, params) {
  const id = next++;
  send({ id, method, params });
  return new Promise((done) => waiting.set(id, done));
}
process_.stdout.on("data", (data) => {
  held = Buffer.concat([held, data]);
  for (;;) {
    const head = held.indexOf("\r\n\r\n");
    if (head < 0) return;
    const length = Number(/Content-Length: (\d+)/i.exec(held.toString("ascii", 0, head))[1]);
    if (held.length < head + 4 + length) return;
    const message = JSON.parse(held.toString("utf8", head + 4, head + 4 + length));
    held = held.subarray(head + 4 + length);
    if (message.method === "workspace/configuration") {
      send({ id: message.id, result: message.params.items.map((item) => (item.section === "yaml" ? settings : {})) });
    } else if (message.method === "textDocument/publishDiagnostics") {
      told(message.params.diagnostics);
    } else if (message.id !== undefined && message.method) {
      send({ id: message.id, result: null });
    } else if (waiting.has(message.id)) {
      waiting.get(message.id)(message.result);
    }
  }
});

let version = 0;
/** Shows the server a text; returns what it underlines. */
function show(text) {
  const seen = new Promise((done) => (told = done));
  version += 1;
  send(version === 1
    ? { method: "textDocument/didOpen", params: { textDocument: { uri, languageId: "yaml", version, text } } }
    : { method: "textDocument/didChange", params: { textDocument: { uri, version }, contentChanges: [{ text }] } });
  return seen;
}
const at = (line, character) => ({ textDocument: { uri }, position: { line, character } });
let failed = false;
function holds(what, is, shown) {
  console.log(`${is ? "yes" : "NO "}  ${what}: ${shown}`);
  failed ||= !is;
}
setTimeout(() => { console.error("the language server did not answer within a minute"); process.exit(1); }, 60_000).unref();

await ask("initialize", {
  processId: process.pid, rootUri: null,
  capabilities: {
    textDocument: { completion: { completionItem: { snippetSupport: true } }, hover: { contentFormat: ["markdown"] } },
    workspace: { configuration: true, didChangeConfiguration: { dynamicRegistration: true } },
  },
});
send({ method: "initialized", params: {} });
send({ method: "workspace/didChangeConfiguration", params: { settings: { yaml: settings } } });

const plan = readFileSync(0, "utf8");
const wrong = await show(plan.replace(/^references:/m, "refrences:"));
holds("a wrong key is underlined", wrong.some((one) => one.message.includes("refrences")), wrong.map((one) => `line ${one.range.start.line + 1}: ${one.message}`).join("; "));

const right = await show(plan);
holds("the demo's plan has nothing underlined", right.length === 0, JSON.stringify(right.map((one) => one.message)));

const value = await show("references:\n  growers: { file: growers.csv, unreadable: skip }\n");
holds("a wrong value is underlined", value.some((one) => one.message.includes("leave-out")), value.map((one) => one.message).join("; "));

await show("transactions: { file: tickets.csv }\n\n");
const top = (await ask("textDocument/completion", at(1, 0))).items.map((item) => item.label);
holds("settings are offered", ["references", "steps", "outputs"].every((one) => top.includes(one)), top.join(", "));

await show("references:\n  growers:\n    file: growers.csv\n    unreadable: \n");
const values = (await ask("textDocument/completion", at(3, 16))).items.map((item) => item.label);
holds("values are offered", ["fail", "leave-out"].every((one) => values.includes(one)), values.join(", "));

await show("references:\n  growers:\n    file: growers.csv\n    unreadable: fail\n");
const hover = (await ask("textDocument/hover", at(3, 6)))?.contents?.value ?? "";
holds("a setting is explained", hover.includes("cannot be read"), hover.replace(/\s+/g, " ").slice(0, 200));

process_.kill();
process.exit(failed ? 1 : 0);
