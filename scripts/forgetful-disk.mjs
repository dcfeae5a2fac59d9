// Loaded before the server: a disk that forgets, at a power cut, what was not flushed. FORGETFUL_SHADOW is a folder that holds what
// is on the disk of FORGETFUL_FOLDER: a file gets there when it is flushed, a new name when its folder is. Folders that are made or
// removed, and files that are removed, are there at once. `cutPower` (forgetful-disk.ts) makes of both what a machine would find.
import fs from "node:fs";
import { syncBuiltinESMExports } from "node:module";
import path from "node:path";

const folder = path.resolve(process.env.FORGETFUL_FOLDER ?? ".");
const shadow = path.resolve(process.env.FORGETFUL_SHADOW ?? ".");
/** How long a flush takes, ms: that of a plain solid-state disk. */
const flushMs = Number(process.env.FORGETFUL_MS ?? 2);
const real = { ...fs };

const renames = path.join(shadow, "..", "renames.json");
const copying = path.join(shadow, "..", "copying");
const names = new Map();
/** Renamed files whose folder was not flushed yet: from, to. */
let pending = [];

const within = (file) => typeof file === "string" && path.resolve(file).startsWith(folder + path.sep);
const inShadow = (file) => path.join(shadow, path.relative(folder, path.resolve(file)));
const remember = () => {
  real.writeFileSync(copying, JSON.stringify(pending));
  real.renameSync(copying, renames);
};

function keepFile(file) {
  const to = inShadow(file);
  real.mkdirSync(path.dirname(to), { recursive: true });
  // In one step: a process that is killed in the middle of a flush has flushed the file or has not.
  real.copyFileSync(file, copying);
  real.renameSync(copying, to);
}

/** What flushing a file, or a folder, brings to the disk. */
function flushed(fd) {
  const file = names.get(fd);
  if (file === undefined || !real.existsSync(file)) return;
  if (!real.statSync(file).isDirectory()) return keepFile(file);
  for (const [from, to] of pending.filter(([, to]) => path.dirname(to) === file))
    if (real.existsSync(inShadow(from))) real.renameSync(inShadow(from), inShadow(to));
  pending = pending.filter(([, to]) => path.dirname(to) !== file);
  remember();
}

fs.openSync = (file, ...rest) => {
  const fd = real.openSync(file, ...rest);
  if (within(file) || path.resolve(String(file)) === folder) names.set(fd, path.resolve(file));
  else names.delete(fd);
  return fd;
};
fs.fsyncSync = fs.fdatasyncSync = (fd) => flushed(fd);
fs.fsync = fs.fdatasync = (fd, done) => {
  setTimeout(() => {
    flushed(fd);
    done(null);
  }, flushMs);
};
fs.renameSync = (from, to) => {
  const isFolder = within(from) && real.statSync(from).isDirectory();
  real.renameSync(from, to);
  if (isFolder) {
    real.rmSync(inShadow(to), { recursive: true, force: true });
    if (real.existsSync(inShadow(from))) real.renameSync(inShadow(from), inShadow(to));
  } else if (within(from)) {
    pending.push([path.resolve(from), path.resolve(to)]);
    remember();
  }
};
fs.mkdirSync = (file, ...rest) => {
  const made = real.mkdirSync(file, ...rest);
  if (within(file)) real.mkdirSync(inShadow(file), { recursive: true });
  return made;
};
for (const name of ["rmSync", "unlinkSync", "rmdirSync"]) {
  fs[name] = (file, ...rest) => {
    real[name](file, ...rest);
    if (within(file)) real.rmSync(inShadow(file), { recursive: true, force: true });
  };
}
syncBuiltinESMExports();
