<?php

declare(strict_types=1);

namespace Tests\Layers;

use PHPat\Selector\Selector;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** The folders of the core and of the application stand on one another, and never the other way round. */
final class FoldersHaveAnOrderTest
{
    /** By namespace, from the ground up: each folder may use those before it. */
    private const ORDERS = [
        'VividLedger' => [
            'Words',
            'Time', 'House', 'Schema', 'Record', 'Rights', 'Message', 'Facts', 'Shape', 'Formula', 'People', 'Condition', 'Template',
            'SignOff', 'Listing', 'Import',
            'Slip', 'Rule',
            'Engine', 'Explain', 'Proofread', 'Rehearse', 'Text',
        ],
        'App' => ['Models', 'Policies', 'Store', 'Work', 'Evidence', 'Http', 'Console', 'Demo', 'Providers'],
    ];

    /** Those at the top of the application put it together, and know each other. */
    private const TOP = ['Console', 'Demo', 'Providers'];

    /** @return iterable<string, Rule> */
    public function test_no_folder_knows_what_stands_above_it(): iterable
    {
        $forgotten = array_diff(array_map(basename(...), glob(dirname(__DIR__, 2).'/core/*') ?: []), self::ORDERS['VividLedger']);
        if ($forgotten !== []) {
            throw new \LogicException('These folders have no place yet: '.implode(', ', $forgotten));
        }
        foreach (self::ORDERS as $namespace => $order) {
            foreach ($order as $place => $folder) {
                $above = array_slice($order, $place + 1);
                if ($above === [] || in_array($folder, self::TOP, true)) {
                    continue;
                }
                yield "{$namespace} {$folder}" => PHPat::rule()
                    ->classes(Selector::inNamespace("{$namespace}\\{$folder}"))
                    ->shouldNot()->dependOn()
                    ->classes(...array_map(static fn (string $name) => Selector::inNamespace("{$namespace}\\{$name}"), $above))
                    ->because('folders have an order, from the ground up: '.implode(', ', $order));
            }
        }
    }
}
