<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\InKeys;
use VividLedger\Shape\Json;
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
use VividLedger\Time\Roll;

/** What stands behind an amount of time, {"time", "roll", "clock"}: "at 09:00, or the next working day, by the owner’s clock". */
final readonly class DueRest implements MultiKeySlot, Worded
{
    use InKeys;

    public function keys(): array
    {
        return ['time', 'roll', 'clock'];
    }

    public function print(mixed $json, Scope $scope, array $around): string
    {
        $json = is_array($json) ? $json : [];
        $roll = is_string($json['roll'] ?? null) ? Roll::tryFrom($json['roll']) : null;
        $time = $json['time'] ?? null;

        return implode(', ', array_filter([
            is_string($time) ? "at {$time}" : '', $roll?->label() ?? '', ($json['clock'] ?? null) === 'owner' ? 'by the owner’s clock' : '',
        ]));
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        $open = [new Parsed([], $at)];
        while ($open !== []) {
            array_push($found, ...$open);
            $longer = [];
            foreach ($open as $one) {
                $had = is_array($one->json) ? $one->json : [];
                foreach ($this->next($typed, $one->end, $scope, $had) as $next) {
                    $longer[] = new Parsed($had + (is_array($next->json) ? $next->json : []), $next->end, $one->cost + $next->cost);
                }
            }
            $open = $longer;
        }

        return $found;
    }

    /** The amount it stands behind was read before, and this with it. */
    public function read(Context $context, Node $node, Filled $around): null
    {
        $due = TimeReader::due($node);
        if ($due instanceof Due && $due->rest() !== '') {
            $context->word($due->rest(), WordRole::Value, $node->at, TimeForm::moment());
        }

        return null;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function properties(): array
    {
        return [
            'time' => Json::TIME, 'roll' => ['enum' => array_map(static fn (Roll $roll): string => $roll->value, Roll::cases())],
            'clock' => ['const' => 'owner'],
        ];
    }

    public function required(): array
    {
        return [];
    }

    /**
     * @param  array<mixed>  $had
     * @return list<Parsed>
     */
    private function next(Typed $typed, int $at, Scope $scope, array $had): array
    {
        $comma = $typed->pattern($at, ',', ',');
        $at = $comma[1] ?? $at;
        $found = [];
        $behind = isset($had['time']) ? null : $typed->words($at, 'at');
        foreach ($behind === null ? [] : (new TimeOfDay)->parse($typed, $behind, $scope, []) as $time) {
            $found[] = $time->as(['time' => $time->json]);
        }
        foreach (isset($had['roll']) ? [] : Roll::cases() as $roll) {
            foreach ([$roll->label(), "or on the {$roll->value} working day", "moved to the {$roll->value} working "
                .'day'] as $nth => $words) {
                $end = $typed->words($at, $words, min(1, $nth));
                if ($end !== null) {
                    $found[] = new Parsed(['roll' => $roll->value], $end, min(1, $nth));
                }
            }
        }
        $end = isset($had['clock']) ? null : $typed->words($at, 'by the owner’s clock');

        return $end === null ? $found : [...$found, new Parsed(['clock' => 'owner'], $end)];
    }
}
