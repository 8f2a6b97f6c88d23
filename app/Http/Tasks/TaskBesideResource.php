<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use App\Models\Tasks\Task;
use OpenApi\Attributes as OA;

/** A task that was given together with another. */
#[OA\Schema]
final readonly class TaskBesideResource
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $title,
        #[OA\Property(enum: ['open', 'done', 'cancelled', 'lapsed'])]
        public string $status,
        #[OA\Property]
        public ?string $assignee,
    ) {
    }

    public static function of(Task $task, string $title): self
    {
        return new self($task->id, $title, $task->status->value, $task->assignee?->name);
    }
}
