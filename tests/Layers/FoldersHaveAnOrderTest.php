<?php

declare(strict_types=1);

namespace Tests\Layers;

use PHPat\Selector\Selector;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** The folders of the application stand on one another, and never the other way round. */
final class FoldersHaveAnOrderTest
{
    /** From the ground up; what stands in one line does not know each other. */
    private const ORDER = ['Models', 'Policies', 'Store', 'Work', 'Evidence', 'Http'];

    /** @return iterable<string, Rule> */
    public function test_no_folder_knows_what_stands_above_it(): iterable
    {
        foreach (self::ORDER as $place => $folder) {
            $above = array_map(
                static fn (string $name) => Selector::inNamespace("App\\{$name}"),
                [...array_slice(self::ORDER, $place + 1), 'Console', 'Demo', 'Providers'],
            );
            yield $folder => PHPat::rule()
                ->classes(Selector::inNamespace("App\\{$folder}"))
                ->shouldNot()->dependOn()
                ->classes(...$above)
                ->because('folders have an order, from the ground up: '.implode(', ', self::ORDER));
        }
    }
}
