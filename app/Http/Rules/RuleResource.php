<?php

declare(strict_types=1);

namespace App\Http\Rules;

use App\Http\Describe\SaysObjects;
use App\Http\Writing\ReadingResource;
use OpenApi\Attributes as OA;

/** A rule with the file that is being written or in force. */
#[OA\Schema]
final readonly class RuleResource implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  array<array-key, mixed>  $file
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $name,
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
        public int $draftVersion,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $draftAt,
        #[OA\Property]
        public ?string $draftBy,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $inForceSince,
        #[OA\Property]
        public int $entries,
        #[OA\Property(description: 'On how many records it is in play.')]
        public int $inPlay,
        #[OA\Property(type: 'object', additionalProperties: true)]
        public array $file,
        #[OA\Property]
        public ReadingResource $reading,
    ) {
    }
}
