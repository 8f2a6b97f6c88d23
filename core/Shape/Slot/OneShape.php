<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use Closure;
use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** One of several shapes: what a registry of kinds is to a sentence. */
final class OneShape implements Slot
{
    /** @var ?list<Slot> */
    private ?array $made = null;

    /**
     * @param  Closure(): list<Slot>  $shapes  asked when they are needed, as a shape can have a place for its like
     * @param  string  $name  under which a schema describes all of them
     */
    public function __construct(private readonly Closure $shapes, private readonly string $name = '')
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        foreach ($this->shapes() as $shape) {
            $text = $shape->print($json, $scope, $around);
            if ($text !== null) {
                return $text;
            }
        }

        return null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ($this->shapes() as $shape) {
            array_push($found, ...$shape->parse($typed, $at, $scope, $around));
        }

        return Parsed::distinct($found);
    }

    public function schema(): array
    {
        return Json::ref($this->name);
    }

    /** @return list<Slot> */
    private function shapes(): array
    {
        return $this->made ??= ($this->shapes)();
    }
}
