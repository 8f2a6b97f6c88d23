<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** A place is found by one guess: the capability, then the layer. Every layer has folders of the same names, and none is crowded. */
final class CapabilityFoldersTest extends TestCase
{
    private const CAPABILITIES = [
        'Access', 'Import', 'Inbound', 'Ledger', 'Library', 'Lists', 'Operations', 'Outbound', 'People', 'Records', 'Rehearsal', 'Rules',
        'Setup', 'SignOffs', 'Slips', 'Tasks', 'Timing', 'Today', 'Types', 'Writing',
    ];

    /** What all capabilities of a layer stand on, and stories that go through many of them. */
    private const GROUND = [
        'app/Models' => ['Casts', 'Events'], 'app/Store' => ['Sql'], 'app/Work' => [], 'app/Evidence' => [],
        'app/Http' => ['Describe', 'Middleware'], 'tests/App' => ['Support'], 'resources/js/screens' => ['parts'],
    ];

    private const MOST_FILES = 30;

    /** @return iterable<string, array{string}> */
    public static function layers(): iterable
    {
        foreach (array_keys(self::GROUND) as $layer) {
            yield $layer => [$layer];
        }
    }

    #[DataProvider('layers')]
    public function test_a_layer_is_sorted_by_capability(string $layer): void
    {
        $known = [...array_map(strtolower(...), self::CAPABILITIES), ...array_map(strtolower(...), self::GROUND[$layer])];
        $folders = array_map(basename(...), glob(self::path($layer).'/*', GLOB_ONLYDIR) ?: []);
        self::assertNotEmpty($folders);
        self::assertSame([], array_values(array_filter(
            $folders,
            static fn (string $folder): bool => ! in_array(strtolower($folder), $known, true),
        )), "Folders in {$layer} that are named like no capability");
    }

    #[DataProvider('layers')]
    public function test_no_folder_is_crowded(string $layer): void
    {
        $crowded = [];
        $all = new \RecursiveIteratorIterator(
            new \RecursiveDirectoryIterator(self::path($layer), \FilesystemIterator::SKIP_DOTS),
            \RecursiveIteratorIterator::SELF_FIRST,
        );
        foreach ([self::path($layer), ...iterator_to_array($all)] as $folder) {
            $files = is_dir((string) $folder) ? count(array_filter(glob("{$folder}/*") ?: [], is_file(...))) : 0;
            if ($files > self::MOST_FILES) {
                $crowded[(string) $folder] = $files;
            }
        }
        self::assertSame([], $crowded);
    }

    private static function path(string $layer): string
    {
        return dirname(__DIR__, 2)."/{$layer}";
    }
}
