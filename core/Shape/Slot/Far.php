<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\InKeys;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Node;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\TimeForm;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;
use VividLedger\Time\Due;
use VividLedger\Time\Unit;

/** How far from a date, {"amount", "unit"}: "2 days before", "1 week after", "on". */
final readonly class Far implements MultiKeySlot, Worded
{
    use InKeys;

    private const BEFORE = ['ahead of', 'prior to', 'in advance of', 'earlier than'];

    private const AFTER = ['past', 'following', 'later than', 'behind'];

    private const DAYS = ['the day before' => -1, 'the day after' => 1, 'the following day after' => 1, 'the day following' => 1];

    /** @param  string  $none  as is said of the date itself */
    public function __construct(private string $none)
    {
    }

    public function keys(): array
    {
        return ['amount', 'unit'];
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $unit = is_array($json) && is_string($json['unit'] ?? null) ? Unit::tryFrom($json['unit']) : null;
        $amount = is_array($json) ? ($json['amount'] ?? null) : null;

        return match (true) {
            $unit === null || ! is_int($amount) => null,
            $amount === 0 => $unit === Unit::Day ? $this->none : null,
            default => $unit->label(abs($amount)).($amount < 0 ? ' before' : ' after'),
        };
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ($typed->isLoose ? array_unique([$this->none, 'on the day of', 'on']) : [$this->none] as $word) {
            $end = $typed->words($at, $word, $word === $this->none ? 0 : 1);
            if ($end !== null) {
                $found[] = new Parsed(['amount' => 0, 'unit' => Unit::Day->value], $end, $word === $this->none ? 0 : 1);
            }
        }
        foreach ($typed->isLoose ? $typed->labels($at, self::DAYS, 1) : [] as [$days, $end]) {
            $found[] = new Parsed(['amount' => $days, 'unit' => Unit::Day->value], $end, 1);
        }
        foreach ((new Length(inDays: true))->parse($typed, $at, $scope, $around) as $length) {
            foreach ($typed->isLoose ? [-1 => ['before', ...self::BEFORE], 1 => ['after', ...self::AFTER]]
                : [-1 => ['before'], 1 => ['after']] as $sign => $words) {
                foreach ($words as $nth => $word) {
                    $end = $typed->words($length->end, $word, min(1, $nth));
                    if ($end !== null && is_array($length->json)) {
                        $amount = $length->json['amount'] ?? null;
                        $found[] = new Parsed(
                            ['amount' => is_int($amount) ? $sign * $amount : 0] + $length->json,
                            $end,
                            $length->cost + min(1, $nth),
                        );
                    }
                }
            }
        }

        return $found;
    }

    public function read(Context $context, Node $node, Filled $around): ?Due
    {
        $due = TimeReader::due($node);
        if (is_string($due)) {
            return $context->gap('choose how far from it', $node->at, TimeForm::moment(), 'wrong_type', $due);
        }
        $far = match (true) {
            $due->amount->amount === 0 => $this->none,
            $due->amount->amount < 0 => "{$due->length()} before",
            default => "{$due->length()} after",
        };
        $context->word($far, WordRole::Value, $node->at, TimeForm::moment());

        return $due;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function properties(): array
    {
        return (new Length)->properties();
    }

    public function required(): array
    {
        return ['amount', 'unit'];
    }
}
