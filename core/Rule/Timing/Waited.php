<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Shape\Context;
use VividLedger\Shape\FormField;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Way;

/** Waiting for the tasks of a line above. A line that has no name yet gets one when it is first waited for. */
final class Waited
{
    /**
     * @param  list<FormField>  $fields
     * @return list<Way> none where no line above gives a task
     */
    public static function ways(Context $context, int $place, string $label, string $kind, array $fields): array
    {
        $lines = self::lines($context, $place);

        return $lines === [] ? [] : [new Way($label, ['kind' => $kind], [
            FormField::choice('line', 'of', $lines, $lines[0]->value), ...$fields,
        ])];
    }

    /** @return list<Offer> */
    private static function lines(Context $context, int $place): array
    {
        $lines = [];
        foreach ($context->sheet->givers as $above => [$key, $said]) {
            if ($above >= $place) {
                break;
            }
            $name = $key;
            for ($number = $above + 1; $name === ''; $number++) {
                $name = isset($context->sheet->keys["line_{$number}"]) ? '' : "line_{$number}";
            }
            $also = $key === '' ? ["/lines/{$above}/key" => $name] : [];
            $lines[] = new Offer('line '.($above + 1).": {$said}", $name, also: $also);
        }

        return $lines;
    }
}
