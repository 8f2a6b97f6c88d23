<?php

declare(strict_types=1);

namespace App\Http\Setup;

use OpenApi\Attributes as OA;

/** What one file of a setup would change. */
#[OA\Schema]
final readonly class SetupChangeResource
{
    /** @param  list<string>  $said */
    public function __construct(
        #[OA\Property]
        public string $path,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public bool $isNew,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $said,
    ) {
    }
}
