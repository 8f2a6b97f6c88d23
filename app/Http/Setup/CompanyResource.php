<?php

declare(strict_types=1);

namespace App\Http\Setup;

use App\Http\Timing\ProcessResource;
use OpenApi\Attributes as OA;

/** The settings of the company. */
#[OA\Schema]
final readonly class CompanyResource
{
    /**
     * @param  list<ProcessResource>  $processes
     */
    public function __construct(
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $timeZone,
        #[OA\Property]
        public ?int $fallbackPersonId,
        #[OA\Property(items: new OA\Items(type: ProcessResource::class))]
        public array $processes,
    ) {
    }
}
