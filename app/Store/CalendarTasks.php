<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\Person;
use App\Models\Task;
use App\Models\TaskStatus;
use Sabre\VObject\Component;
use Sabre\VObject\ParseException;
use Sabre\VObject\Property\ICalendar\DateTime;
use Sabre\VObject\Reader;
use VividLedger\Rights\Duty;
use VividLedger\Rule\Line\TaskPlan;
use VividLedger\Schema\RecordType;

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
     * @throws Refused
     */
    public function read(string $ics, Person $person): array
    {
        try {
            $calendar = Reader::read($ics, Reader::OPTION_FORGIVING);
            $todos = $calendar->select('VTODO');
        } catch (ParseException|\TypeError) {
            throw Refused::at('/text', 'This is not an iCalendar file.');
        }
        if ($todos === [] || count($todos) > self::MOST) {
            throw Refused::at('/text', $todos === [] ? 'There is no to-do in this file.'
                : 'There are more than '.self::MOST.' to-dos in this file.');
        }

        return array_values(array_map(fn (Component $todo): CalendarTask => $this->of($todo, $person), $todos));
    }

    /**
     * @param  list<CalendarTask>  $tasks
     * @param  ?array{RecordType, int}  $about  the record that new ones are about
     *
     * @throws Refused
     */
    public function bring(array $tasks, ?array $about, Person $person): void
    {
        $this->db->transaction(function () use ($tasks, $about, $person): void {
            foreach ($tasks as $task) {
                if ($task->what === 'given') {
                    [$type, $record] = $about ?? throw Refused::at('/recordId', 'Say which record the new tasks are about.');
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

    private function of(Component $todo, Person $person): CalendarTask
    {
        $text = static fn (string $name): string => trim((string) ($todo->{$name} ?? ''));
        $uid = $text('UID');
        $title = mb_substr($text('SUMMARY') === '' ? 'Task' : $text('SUMMARY'), 0, TaskPlan::TITLE_LENGTH);
        $due = $this->moment($todo, $title);
        $isDone = strtoupper($text('STATUS')) === 'COMPLETED' || isset($todo->COMPLETED);
        $here = $this->here($uid, $person);
        $priority = match (true) {
            in_array((int) $text('PRIORITY'), [1, 2, 3, 4], true) => 'high',
            in_array((int) $text('PRIORITY'), [6, 7, 8, 9], true) => 'low',
            default => 'normal',
        };
        $what = match (true) {
            $here === null => $isDone ? 'same' : 'given',
            $here->status !== TaskStatus::Open => 'same',
            $isDone => 'done',
            default => $here->due_at?->getTimestamp() === $due?->getTimestamp() ? 'same' : 'moved',
        };

        return new CalendarTask(
            $uid === '' ? "{$title} ".$due?->getTimestamp() : $uid, $title, mb_substr($text('DESCRIPTION'), 0, TaskPlan::NOTES_LENGTH),
            $priority, $due, $here?->id, $what,
        );
    }

    /** The task here that a to-do is, if it is one that this person may change. */
    private function here(string $uid, Person $person): ?Task
    {
        $host = parse_url((string) config('app.url'), PHP_URL_HOST);
        $tasks = Task::query();
        if (preg_match('/^task-(\d{1,18})@(.+)$/D', $uid, $ours) === 1 && $ours[2] === $host) {
            $task = $tasks->find((int) $ours[1]);

            return $task !== null && ($task->assignee_id === $person->id || $person->may(Duty::DoAllTasks)) ? $task : null;
        }

        return $uid === '' ? null : $tasks->where('assignee_id', $person->id)->where('calendar_uid', self::key($uid))->first();
    }

    private function moment(Component $todo, string $title): ?\DateTimeImmutable
    {
        $due = $todo->DUE ?? null;
        try {
            $at = $due instanceof DateTime ? $due->getDateTime($this->company->zone()) : null;
        } catch (\Exception) {
            throw Refused::at('/text', "The date of “{$title}” cannot be read.");
        }
        // A day without a time ends with the day.
        $isDay = $due instanceof DateTime && ! $due->hasTime();

        return $at === null ? null : ($isDay ? $at->setTime(17, 0) : $at)->setTimezone(new \DateTimeZone('UTC'));
    }

    private static function key(string $uid): string
    {
        return substr(hash('sha256', $uid), 0, 40);
    }
}
