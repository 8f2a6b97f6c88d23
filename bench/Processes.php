<?php

declare(strict_types=1);

namespace Bench;

/** What the programs that serve use of this machine, read from /proc. */
final class Processes
{
    private const PROGRAMS = ['php-fpm', 'mariadbd'];

    /** @return array<string, float> seconds of a core, by program; those of children that have ended included */
    public static function seconds(): array
    {
        $used = array_fill_keys(self::PROGRAMS, 0.0);
        foreach (self::PROGRAMS as $program) {
            foreach (self::of($program) as $folder) {
                $used[$program] += self::spent((string) @file_get_contents("{$folder}/stat"));
            }
        }

        return $used;
    }

    /** Seconds of a core that this process has used. */
    public static function own(): float
    {
        return self::spent((string) file_get_contents('/proc/self/stat'));
    }

    public static function count(string $program): int
    {
        return count(self::of($program));
    }

    /** Of one process in the middle, its share of what several use together; in MB. */
    public static function megabytes(string $program): float
    {
        $sizes = array_map(static function (string $folder): float {
            $rollup = (string) @file_get_contents("{$folder}/smaps_rollup");

            return preg_match('/^Pss:\s+(\d+) kB/m', $rollup, $found) === 1 ? (int) $found[1] / 1024 : 0.0;
        }, self::of($program));

        return $sizes === [] ? 0.0 : Timing::median($sizes);
    }

    /** @return list<string> folders of the processes of a program */
    private static function of(string $program): array
    {
        return array_values(array_filter(glob('/proc/[0-9]*') ?: [], static fn (string $folder): bool => str_starts_with(
            (string) @file_get_contents("{$folder}/comm"), $program,
        )));
    }

    private static function spent(string $stat): float
    {
        $fields = explode(' ', substr($stat, (int) strrpos($stat, ')') + 2));

        return array_sum(array_map(intval(...), array_slice($fields, 11, 4))) / 100;
    }
}
