<?php

declare(strict_types=1);

namespace App\Console;

use App\Models\People\Person;
use App\Models\Tasks\Task;
use App\Models\Tasks\TaskStatus;
use App\Store\Actor;
use App\Store\Records\SaveRecord;
use App\Store\Types\SchemaStore;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;

/** A handful of records for a company without a history, for the tests in the browser. */
final class DemoTicketsCommand extends Command
{
    protected $signature = 'demo:tickets';

    protected $description = 'Add a customer and three tickets to a company without a history';

    public function handle(SaveRecord $save, SchemaStore $schemas, Connection $db): int
    {
        $types = $schemas->schema()->types;
        $ines = Person::query()->where('handle', 'ines.okafor')->firstOrFail()->id;
        $actor = new Actor($ines);
        $customer = $save->create(
            $types['customer'],
            ['name' => 'Brine & Barrow Hotel', 'plan' => 'care', 'owner' => $ines],
            $actor,
        )->record->id;
        foreach (['Ficus wall wilting', 'Gnats in meeting room 4', 'Wrong pots delivered'] as $subject) {
            $save->create(
                $types['ticket'],
                ['subject' => $subject, 'customer' => $customer, 'priority' => 'normal', 'status' => 'open', 'owner' => $ines],
                $actor,
            );
        }
        // The rules of the demo would answer too; these tests are about the one they write.
        Task::query()->get()->each(static fn (Task $task) => $task->update(['status' => TaskStatus::Done, 'done_at' => $task->given_at]));

        return self::SUCCESS;
    }
}
