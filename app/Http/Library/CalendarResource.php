<?php

declare(strict_types=1);

namespace App\Http\Library;

use App\Http\Describe\SaysObjects;
use OpenApi\Attributes as OA;

/** A working calendar, and who goes by it. */
#[OA\Schema]
final readonly class CalendarResource implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  array<array-key, mixed>  $hours
     * @param  array<array-key, mixed>  $holidays
     * @param  list<string>  $teams
     * @param  list<int>  $people
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $timeZone,
        #[OA\Property(type: 'object', additionalProperties: true)]
        public array $hours,
        #[OA\Property(type: 'object', additionalProperties: true)]
        public array $holidays,
        #[OA\Property]
        public int $version,
        #[OA\Property]
        public bool $company,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $teams,
        #[OA\Property(items: new OA\Items(type: 'integer'))]
        public array $people,
    ) {
    }
}
