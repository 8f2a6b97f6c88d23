<?php

declare(strict_types=1);

namespace App\Http\Describe;

use App\Http\Rules\ProblemResource;
use OpenApi\Attributes as OA;

/** A refusal (RFC 9457). */
#[OA\Schema]
final readonly class ProblemDocument
{
    /** @param  list<ProblemResource>  $problems */
    public function __construct(
        #[OA\Property(description: 'A URN that names the kind of problem and never changes.')]
        public string $type,
        #[OA\Property(description: 'What a problem of this sort is called, the same each time.')]
        public string $title,
        #[OA\Property]
        public int $status,
        #[OA\Property(description: 'What happened this time, for a person.')]
        public string $detail,
        #[OA\Property(description: 'The last part of the type, for programs.')]
        public string $code,
        #[OA\Property(items: new OA\Items(type: ProblemResource::class))]
        public array $problems,
    ) {
    }
}
