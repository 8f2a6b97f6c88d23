<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use OpenApi\Attributes as OA;
use VividLedger\Condition\Finding;

/** What a condition found. */
#[OA\Schema]
final readonly class FindingResource
{
    /**
     * @param  list<FindingResource>  $parts
     */
    public function __construct(
        #[OA\Property]
        public string $text,
        #[OA\Property]
        public bool $held,
        #[OA\Property]
        public ?string $seen,
        #[OA\Property(items: new OA\Items(type: FindingResource::class))]
        public array $parts,
    ) {
    }

    public static function of(Finding $finding): self
    {
        return new self($finding->text, $finding->held, $finding->seen, array_map(self::of(...), $finding->parts));
    }

    /** @param  array<array-key, mixed>  $kept  as an entry keeps it */
    public static function kept(array $kept): self
    {
        return new self(
            (string) $kept['text'], (bool) $kept['held'], isset($kept['seen']) ? (string) $kept['seen'] : null,
            array_map(self::kept(...), array_values($kept['parts'] ?? [])),
        );
    }
}
