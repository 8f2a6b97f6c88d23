<?php

declare(strict_types=1);

namespace App\Http\Access;

use OpenApi\Attributes as OA;

/** Codes for whoever has lost their authenticator application; told this once, each good once. */
#[OA\Schema]
final readonly class RecoveryCodes
{
    /** @param  list<string>  $codes */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $codes,
    ) {
    }
}
