<?php

declare(strict_types=1);

namespace App\Http\Records;

use OpenApi\Attributes as OA;

/** A headline: who or what, and what happened. */
#[OA\Schema]
final readonly class HeadResource
{
    public function __construct(
        #[OA\Property]
        public string $strong,
        #[OA\Property]
        public string $rest,
    ) {
    }

    /** @param  array{string, string}  $said */
    public static function of(array $said): self
    {
        return new self(...$said);
    }
}
