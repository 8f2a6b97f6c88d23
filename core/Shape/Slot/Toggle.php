<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\InKeys;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;

/** Something that is so, or is not: each has words of its own, and only what is so stands in the file. */
final readonly class Toggle implements MultiKeySlot, Worded
{
    use InKeys;

    /**
     * @param  string  $on  the words when it is so
     * @param  string  $off  and when it is not
     */
    public function __construct(private string $key, private string $on, private string $off)
    {
    }

    public function keys(): array
    {
        return [$this->key];
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return match (is_array($json) ? ($json[$this->key] ?? null) : null) {
            true => $this->on,
            null, false => $this->off,
            default => null,
        };
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $on = $typed->words($at, $this->on);
        $off = $typed->words($at, $this->off);

        return [
            ...($on === null ? [] : [new Parsed([$this->key => true], $on)]),
            ...($off === null ? [] : [new Parsed([], $off)]),
        ];
    }

    public function read(Context $context, Node $node, Filled $around): bool
    {
        $at = $node->child($this->key);
        $isOn = $at->raw === true;
        $context->choice($isOn ? $this->on : $this->off, WordRole::Value, $at->at, fn (): array => [
            new Offer($this->off, null), new Offer($this->on, true),
        ]);

        return $isOn;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function properties(): array
    {
        return [$this->key => ['const' => true]];
    }

    public function required(): array
    {
        return [];
    }
}
