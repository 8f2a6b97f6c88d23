<?php

declare(strict_types=1);

namespace App\Http\Rules;

use OpenApi\Attributes as OA;

/** A rule in the list of rules. */
#[OA\Schema]
final readonly class RuleSummary
{
    /**
     * @param  list<int>  $days
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $name,
        #[OA\Property(description: 'What it is for, in somebody’s own words; may be empty.')]
        public string $purpose,
        #[OA\Property]
        public string $on,
        #[OA\Property(enum: ['draft', 'in_force', 'paused', 'retired'])]
        public string $status,
        #[OA\Property]
        public ?int $page,
        #[OA\Property]
        public bool $hasDraft,
        #[OA\Property(description: 'The either/or set it stands in; empty for none.')]
        public string $eitherOr,
        #[OA\Property]
        public string $aloud,
        #[OA\Property(description: 'Why a rule in force does nothing until it is mended; null when it is sound.')]
        public ?string $broken,
        #[OA\Property]
        public bool $byHand,
        #[OA\Property(description: 'Firings in the last 30 days.')]
        public int $entries,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $lastFired,
        #[OA\Property(description: 'Firings on each of the last 14 days, today last.', items: new OA\Items(type: 'integer'))]
        public array $days,
    ) {
    }
}
