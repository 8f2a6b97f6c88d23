<?php

declare(strict_types=1);

namespace App\Http\Timing;

use OpenApi\Attributes as OA;

/** Something pencilled in for a record, or for a day. */
#[OA\Schema]
final readonly class AheadResource
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $kind,
        #[OA\Property]
        public string $status,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $due,
        #[OA\Property(format: 'date-time', nullable: true, description: 'What its timing said, where quiet hours put it off.')]
        public ?string $meant,
        #[OA\Property(description: 'What the row is about, before its title; empty for a line that says it itself.')]
        public string $lead,
        #[OA\Property]
        public string $title,
        #[OA\Property]
        public ?string $person,
        #[OA\Property]
        public ?int $rule,
        #[OA\Property]
        public ?string $ruleName,
        #[OA\Property]
        public ?int $task,
        #[OA\Property]
        public string $note,
        #[OA\Property]
        public string $recordType,
        #[OA\Property]
        public int $recordId,
        #[OA\Property]
        public string $recordNumber,
        #[OA\Property]
        public string $recordTitle,
    ) {
    }
}
