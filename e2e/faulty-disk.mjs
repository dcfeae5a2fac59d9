// Loaded before the server in tests: while the file named by FAULT_FLAG is there, the disk under FAULT_FOLDER fails.
// What it holds is the error of the system: ENOSPC for a full disk, EROFS for one that may only be read.
import fs from "node:fs";
import { syncBuiltinESMExports } from "node:module";
import path from "node:path";

const { FAULT_FLAG: flag = "", FAULT_FOLDER: folder = "" } = process.env;
const real = { ...fs };

const inFolder = (file) => typeof file === "string" && path.resolve(file).startsWith(path.resolve(folder));
const fault = () => {
  try {
    return real.readFileSync(flag, "utf8").trim();
  } catch {
    return "";
  }
};
const words = { ENOSPC: "no space left on device", EROFS: "read-only file system" };
const numbers = { ENOSPC: -28, EROFS: -30 };
function refuse(what) {
  const code = fault();
  if (code === "") return;
  throw Object.assign(new Error(`${code}: ${words[code]}, ${what}`), { code, errno: numbers[code] });
}

// A disk is called full while the database still has the room that it works in: that is what the server looks at.
fs.statfsSync = (file, ...rest) => {
  const seen = real.statfsSync(file, ...rest);
  return inFolder(file) && fault() === "ENOSPC" ? { ...seen, bavail: 0 } : seen;
};
for (const name of ["writeFileSync", "mkdirSync"]) {
  fs[name] = (file, ...rest) => {
    // A folder that is there already is no write.
    if (inFolder(file) && !(name === "mkdirSync" && real.existsSync(file))) refuse(name);
    return real[name](file, ...rest);
  };
}
syncBuiltinESMExports();
