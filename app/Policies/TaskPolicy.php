<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\People\Person;
use App\Models\Tasks\Task;
use Illuminate\Auth\Access\Response;
use VividLedger\Rights\Duty;
use VividLedger\Words\Words;

/** Who may complete a task, and give it another date or person. */
final class TaskPolicy
{
    public function complete(Person $person, Task $task): Response
    {
        $whose = $task->assignee->name ?? 'nobody';

        return $task->assignee_id === $person->id || $person->may(Duty::DoAllTasks)
            ? Response::allow() : Response::deny(Words::say('This task is {whose}’s. You can complete your own.', whose: $whose));
    }
}
