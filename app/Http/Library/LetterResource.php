<?php

declare(strict_types=1);

namespace App\Http\Library;

use OpenApi\Attributes as OA;

/** A letter template, in the version that is sent now. */
#[OA\Schema]
final readonly class LetterResource
{
    /**
     * @param  list<string>  $rules
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $recordType,
        #[OA\Property]
        public int $version,
        #[OA\Property]
        public string $subject,
        #[OA\Property]
        public string $body,
        #[OA\Property(format: 'date-time')]
        public string $at,
        #[OA\Property]
        public string $by,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $rules,
    ) {
    }
}
