<?php

declare(strict_types=1);

namespace App\Store\Tasks;

use App\Models\People\Person;
use App\Models\Tasks\Task;
use App\Models\Tasks\TaskStatus;
use App\Store\DomainError;
use App\Store\LedgerConnection;
use App\Store\Setup\Company;
use Illuminate\Database\Eloquent\Builder;
use Sabre\VObject\Component;
use Sabre\VObject\Property\ICalendar\DateTime;
use VividLedger\Rights\Duty;
use VividLedger\Rule\Line\TaskPlan;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/**
 * To-dos of a calendar file (iCalendar, RFC 5545) become tasks, or change those that they are: of ours the date and that they are done,
 * by the names under which we gave them out; of others once each, however often the file is brought in.
 */
final readonly class CalendarTasks
{
    public const MOST = 500;

    public function __construct(private LedgerConnection $db, private TaskStore $tasks, private Company $company)
    {
    }

    /**
     * @return list<CalendarTask>
     *
     * @throws DomainError
     */
    public function read(string $ics, Person $person): array
    {
        $todos = CalendarFile::read($ics)->all('VTODO');
        if ($todos === [] || count($todos) > self::MOST) {
            throw DomainError::at('/text', $todos === [] ? Words::say('There is no to-do in this file.')
                : Words::say('There are more than {most} to-dos in this file.', most: self::MOST));
        }

        $byUid = [];
        foreach ($todos as $todo) {
            // One that has no name goes by what it says; of one that stands there twice the first counts, and of one that comes again the
            // whole of it before what is otherwise on a single day.
            isset($todo->{'RECURRENCE-ID'})
                || $byUid[self::text($todo, 'UID') ?: self::text($todo, 'SUMMARY').' '.self::text($todo, 'DUE')] ??= $todo;
        }
        $here = $this->here(array_map(strval(...), array_keys($byUid)), $person);

        return array_map(
            fn (string $uid, Component $todo): CalendarTask => $this->of($uid, $todo, $here[self::key($uid)] ?? null, $person),
            array_map(strval(...), array_keys($byUid)), array_values($byUid),
        );
    }

    /**
     * @param  list<CalendarTask>  $tasks
     * @param  ?array{RecordType, int}  $about  the record that new ones are about
     *
     * @throws DomainError
     */
    public function bring(array $tasks, ?array $about, Person $person): void
    {
        $this->db->transaction(function () use ($tasks, $about, $person): void {
            foreach ($tasks as $task) {
                if ($task->what === 'given') {
                    [$type, $record] = $about ?? throw DomainError::at('/recordId',
                        Words::say('Say which record the new tasks are about.'));
                    $id = $this->tasks->give($type, $record, [
                        'title' => $task->title, 'notes' => $task->notes, 'priority' => $task->priority, 'due' => $task->due,
                        'assignee' => $person->id,
                    ], $person->id);
                    Task::query()->whereKey($id)->update(['calendar_uid' => self::key($task->uid)]);
                } elseif ($task->what === 'moved') {
                    $this->tasks->change((int) $task->task, ['due' => $task->due], $person->id);
                } elseif ($task->what === 'done') {
                    $this->tasks->complete((int) $task->task, $person->id);
                }
            }
        });
    }

    private function of(string $uid, Component $todo, ?Task $here, Person $person): CalendarTask
    {
        $title = self::text($todo, 'SUMMARY');
        $title = mb_substr($title === '' ? 'Task' : $title, 0, TaskPlan::TITLE_LENGTH);
        [$due, $said] = $this->moment($todo, $title);
        if (isset($todo->RRULE) || isset($todo->RDATE)) {
            $said[] = Words::say('It comes again; this one time is taken in.');
        }
        $isCancelled = strtoupper(self::text($todo, 'STATUS')) === 'CANCELLED';
        if ($isCancelled) {
            $said[] = $here === null ? Words::say('It is cancelled.') : Words::say('It is cancelled there; here it stays.');
        }
        $isDone = strtoupper(self::text($todo, 'STATUS')) === 'COMPLETED' || isset($todo->COMPLETED);
        // What is another's is neither changed nor made mine.
        $isMine = $here === null || $here->assignee_id === $person->id || $person->may(Duty::DoAllTasks);
        $what = match (true) {
            $here === null && $isCancelled => 'left',
            $here === null => $isDone ? 'same' : 'given',
            $isCancelled, ! $isMine || $here->status !== TaskStatus::Open => 'same',
            $isDone => 'done',
            default => $here->due_at?->getTimestamp() === $due?->getTimestamp() ? 'same' : 'moved',
        };

        return new CalendarTask(
            uid: $uid, title: $title, notes: mb_substr(self::text($todo, 'DESCRIPTION'), 0, TaskPlan::NOTES_LENGTH),
            priority: self::priority($todo), due: $due, task: $here?->id, what: $what, said: $said,
        );
    }

    /**
     * The tasks here that to-dos are: ours by the names we gave them, others by those they came with.
     *
     * @param  list<string>  $uids
     * @return array<string, Task> by the key of the name
     */
    private function here(array $uids, Person $person): array
    {
        $host = preg_quote((string) parse_url((string) config('app.url'), PHP_URL_HOST), '/');
        $ours = [];
        foreach ($uids as $uid) {
            if (preg_match("/^task-(\\d{1,18})@{$host}$/D", $uid, $found) === 1) {
                $ours[(int) $found[1]] = self::key($uid);
            }
        }
        $tasks = Task::query()->whereKey(array_keys($ours))->orWhere(static fn (Builder $theirs): Builder => $theirs
            ->where('assignee_id', $person->id)->whereIn('calendar_uid', array_map(self::key(...), $uids)))->get();
        $here = [];
        foreach ($tasks as $task) {
            $here[$ours[$task->id] ?? (string) $task->calendar_uid] = $task;
        }

        return $here;
    }

    private static function text(Component $todo, string $name): string
    {
        return trim((string) ($todo->{$name} ?? ''));
    }

    /** From 1, the highest, to 9; 5 and none are neither (RFC 5545, 3.8.1.9). */
    private static function priority(Component $todo): string
    {
        $priority = (int) self::text($todo, 'PRIORITY');

        return match (true) {
            $priority >= 1 && $priority <= 4 => 'high',
            $priority >= 6 && $priority <= 9 => 'low',
            default => 'normal',
        };
    }

    /** @return array{?\DateTimeImmutable, list<string>} when it is due, and what is to be said about that */
    private function moment(Component $todo, string $title): array
    {
        // Where it begins and how long it takes say as much (RFC 5545 §3.6.2).
        $due = $todo->DUE ?? (isset($todo->DURATION) ? $todo->DTSTART ?? null : null);
        if (! $due instanceof DateTime) {
            return [null, []];
        }
        try {
            $at = CalendarFile::moment($due, $this->company->zone(), isset($todo->DUE) ? '' : self::text($todo, 'DURATION'));
            $unknown = CalendarFile::unknownZone($due);
        } catch (\Exception) {
            throw DomainError::at('/text', Words::say('The date of “{title}” cannot be read.', title: $title));
        }
        // A day without a time ends with the day.
        $at = ($due->hasTime() ? $at : $at->setTime(17, 0))->setTimezone(new \DateTimeZone('UTC'));

        return [$at, $unknown === null ? [] : [
            Words::say('Nobody here knows the time zone ‘{zone}’; its time is taken for one of {ours}.', zone: $unknown,
                ours: $this->company->zone()->getName()),
        ]];
    }

    private static function key(string $uid): string
    {
        return substr(hash('sha256', $uid), 0, 40);
    }
}
