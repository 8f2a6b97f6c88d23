<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use App\Store\Tasks\CalendarTask;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;

/** A to-do of a calendar file, and what it comes to. */
#[OA\Schema]
final readonly class CalendarTaskResource
{
    /** @param  list<string>  $said */
    public function __construct(
        #[OA\Property]
        public string $title,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $dueAt,
        #[OA\Property(description: 'It is given as a new task, its date moves, it is done, it is left out, or nothing comes of it.',
            enum: ['given', 'moved', 'done', 'left', 'same'])]
        public string $what,
        #[OA\Property(description: 'What of it is not taken in, and how it was understood, each in words.',
            items: new OA\Items(type: 'string'))]
        public array $said,
    ) {
    }

    public static function of(CalendarTask $task): self
    {
        return new self($task->title, $task->due === null ? null : Value::instantText($task->due), $task->what, $task->said);
    }
}
