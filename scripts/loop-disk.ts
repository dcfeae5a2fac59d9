import { execFileSync } from "node:child_process";
import { copyFileSync, rmSync } from "node:fs";
import path from "node:path";
import type { ForgetfulDisk } from "./forgetful-disk";

const run = (command: string, ...args: string[]): string =>
  execFileSync(command, args, { stdio: ["ignore", "pipe", "pipe"], encoding: "utf8" });

/** Whether this user may put a file system into a file and mount it. */
function loopsWork(): boolean {
  try {
    run("losetup", "--version");
    run("mkfs.ext4", "-V");
    return process.getuid?.() === 0 && run("losetup", "--find").trim() !== "";
  } catch {
    return false;
  }
}

/**
 * A disk in a file, with a file system of its own: what the kernel has not written to it is lost with a copy of that file. Null where
 * this user cannot have one.
 */
export function loopDisk(): ((folder: string, beside: string) => ForgetfulDisk) | null {
  if (!loopsWork()) return null;
  return (folder, beside) => {
    const image = path.join(beside, "disk");
    const mount = () => run("mount", "-o", "loop", image, folder);
    run("truncate", "-s", "1G", image);
    run("mkfs.ext4", "-q", "-F", image);
    mount();
    return {
      env: {},
      settle: () => run("sync", "-f", folder),
      cut: () => {
        // What is in the file now is what was on the disk; the rest never gets there.
        copyFileSync(image, `${image}.cut`);
        run("umount", folder);
        copyFileSync(`${image}.cut`, image);
        rmSync(`${image}.cut`);
        mount();
      },
      end: () => run("umount", folder),
    };
  };
}
