<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use OpenApi\Attributes as OA;

/** A task. */
#[OA\Schema]
final readonly class TaskResource
{
    /** @param  list<TaskBesideResource>  $together */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $title,
        #[OA\Property]
        public string $notes,
        #[OA\Property(enum: ['low', 'normal', 'high'])]
        public string $priority,
        #[OA\Property(enum: ['open', 'done', 'cancelled', 'lapsed'])]
        public string $status,
        #[OA\Property]
        public ?int $assigneeId,
        #[OA\Property]
        public ?string $assigneeHandle,
        #[OA\Property]
        public ?string $assignee,
        #[OA\Property]
        public string $recordType,
        #[OA\Property]
        public int $recordId,
        #[OA\Property]
        public string $recordNumber,
        #[OA\Property]
        public string $recordTitle,
        #[OA\Property]
        public ?int $rule,
        #[OA\Property]
        public ?string $ruleName,
        #[OA\Property]
        public int $entry,
        #[OA\Property(format: 'date-time')]
        public string $givenAt,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $dueAt,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $doneAt,
        #[OA\Property]
        public ?string $doneBy,
        #[OA\Property(description: 'What came of it, in the words of whoever did it; of one that has lapsed, why.')]
        public string $outcome,
        #[OA\Property(description: 'The others that the same line gave with it.', items: new OA\Items(type: TaskBesideResource::class))]
        public array $together = [],
    ) {
    }
}
