<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Shape\FormField;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Way;

/** Waiting for the tasks of a line above, or for its sign-off. A line that has no name yet gets one when it is first waited for. */
final class Waited
{
    /**
     * @param  array<int, array{string, string}>  $lines  key and wording of those that can be waited for, by place
     * @param  array<string, string>  $keys  that are taken
     * @param  list<FormField>  $fields
     * @return list<Way> none where no line above can be waited for
     */
    public static function ways(array $lines, array $keys, int $place, string $label, string $kind, array $fields): array
    {
        $lines = self::lines($lines, $keys, $place);

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
