<?php

declare(strict_types=1);

namespace App\Http\Writing;

use VividLedger\Text\Misreading;
use VividLedger\Text\TextReading;

/** What a typed text was read to, as the API says it. */
final class TextResources
{
    /** @param  \Closure(array<mixed>): string  $print */
    public static function of(TextReading $reading, \Closure $print): TextResource
    {
        return new TextResource($reading->file, array_map(static fn (Misreading $misread): MisreadingResource => new MisreadingResource(
            line: $misread->line, position: $misread->position, word: $misread->word, message: $misread->message(),
            expected: array_slice($misread->expected, 0, 200), offers: array_slice($misread->offers, 0, 200), meant: $misread->meant,
        ), $reading->misread), array_map(
            static fn (array $json): MeaningResource => new MeaningResource($print($json), $json),
            $reading->readings,
        ));
    }
}
