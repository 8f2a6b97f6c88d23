<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Record\WaitedSort;
use VividLedger\Shape\FormField;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Waitables;
use VividLedger\Shape\Way;

/** Waiting for what a line above has begun. A line that has no name yet gets one when it is first waited for. */
final class Waited
{
    /**
     * @param  list<FormField>  $fields
     * @return list<Way> none where no line above can be waited for
     */
    public static function ways(Waitables $all, WaitedSort $sort, int $place, string $label, string $kind, array $fields): array
    {
        $lines = self::lines($all->lines($sort), $all->keys(), $place);

        return $lines === [] ? [] : [new Way($label, ['kind' => $kind], [
            FormField::choice('line', 'of', $lines, $lines[0]->value), ...$fields,
        ])];
    }

    /**
     * @param  array<int, array{string, string}>  $waited
     * @param  array<string, string>  $keys
     * @return list<Offer>
     */
    private static function lines(array $waited, array $keys, int $place): array
    {
        $lines = [];
        foreach ($waited as $above => [$key, $said]) {
            if ($above >= $place) {
                break;
            }
            $name = $key;
            for ($number = $above + 1; $name === ''; $number++) {
                $name = isset($keys["line_{$number}"]) ? '' : "line_{$number}";
            }
            $also = $key === '' ? ["/lines/{$above}/key" => $name] : [];
            $lines[] = new Offer('line '.($above + 1).": {$said}", $name, also: $also);
        }

        return $lines;
    }
}
