<?php

declare(strict_types=1);

namespace App\Http\Library;

use App\Http\Describe\SaysObjects;
use OpenApi\Attributes as OA;

/** Days read from an iCalendar file, with their names. */
#[OA\Schema]
final readonly class HolidaysResource implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  array<array-key, mixed>  $holidays
     * @param  list<string>  $said
     */
    public function __construct(
        #[OA\Property(type: 'object', additionalProperties: true)]
        public array $holidays,
        #[OA\Property(description: 'What of the file is not taken in, or not all of it, each in words.',
            items: new OA\Items(type: 'string'))]
        public array $said,
    ) {
    }
}
