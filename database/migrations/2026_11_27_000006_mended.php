<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What pencilled rows are about stands in columns of its own; runs know what began them; letters know who is sending them. */
return new class extends Migration
{
    /** Code by the sentence under which it was kept so far. */
    private const STRUCK = [
        'the task was done' => 'task_done', 'the task was not done in '
            .'time' => 'task_not_done', 'the task has no date any more' => 'task_without_date',
        'the task was cancelled' => 'task_cancelled', 'the page has no such line' => 'no_such_line', 'the new page has no such '
            .'line' => 'new_page',
        'the record was deleted' => 'record_deleted', 'the rule was retired' => 'rule_retired',
        'the rule is not in force' => 'not_in_force',
        'what pencilled it in was reversed' => 'reversed', 'the rule fired again and began anew' => 'fired_again',
    ];

    public function up(): void
    {
        $name = static fn (Blueprint $table, string $column, int $length) => $table->string($column, $length)->charset('ascii')
            ->collation('ascii_bin');

        Schema::table('scheduled_lines', function (Blueprint $table) use ($name): void {
            $name($table, 'occasion', 120)->nullable()->comment('of a row that starts a rule: names the start among all of its record');
            $name($table, 'struck_code', 24)->nullable();
            $name($table, 'held_code', 16)->nullable()->comment('by_hand or rule_paused');
            $table->string('struck_because', 200)->nullable()->change();
        });
        DB::statement(
            "UPDATE scheduled_lines SET occasion = note, note = '' WHERE kind IN ('start', 'round') AND note <> 'the rule is paused'",
        );
        DB::statement(
            "UPDATE scheduled_lines SET held_code = IF(note = 'the rule is paused', 'rule_paused', 'by_hand') WHERE status = 'held'",
        );
        foreach (self::STRUCK as $because => $code) {
            DB::update("UPDATE scheduled_lines SET struck_code = ? WHERE status = 'struck' AND struck_because = ?", [$code, $because]);
        }
        DB::statement(
            "UPDATE scheduled_lines SET struck_code = IF(struck_because LIKE 'until %', 'until', 'by_hand') WHERE status = 'struck' AND "
                .'struck_code IS NULL',
        );
        Schema::table('rule_runs', function (Blueprint $table): void {
            $table->json('began')->nullable()->comment('what the change was that began it');
        });
        Schema::table('messages', function (Blueprint $table) use ($name): void {
            $name($table, 'leased_by', 40)->nullable()->comment('the sender that has it in hand');
            $table->unsignedTinyInteger('unsure')->default(0)->comment('how often it may have arrived without our being told');
        });
        // What an entry did is looked up when it is reversed.
        foreach (['tasks', 'scheduled_lines', 'messages'] as $table) {
            Schema::table($table, fn (Blueprint $rows) => $rows->index('entry_id'));
        }
        $this->sequences('INCREMENT BY 0');
    }

    public function down(): void
    {
        $this->sequences('INCREMENT BY 1');
        foreach (['tasks', 'scheduled_lines', 'messages'] as $table) {
            Schema::table($table, fn (Blueprint $rows) => $rows->dropIndex(['entry_id']));
        }
        Schema::table('messages', fn (Blueprint $table) => $table->dropColumn(['leased_by', 'unsure']));
        Schema::table('rule_runs', fn (Blueprint $table) => $table->dropColumn('began'));
        DB::statement("UPDATE scheduled_lines SET note = 'the rule is paused' WHERE held_code = 'rule_paused'");
        DB::statement("UPDATE scheduled_lines SET note = COALESCE(occasion, '') WHERE kind IN ('start', 'round')");
        Schema::table('scheduled_lines', fn (Blueprint $table) => $table->dropColumn(['occasion', 'struck_code', 'held_code']));
    }

    /**
     * By 0 a sequence counts in the steps of its database node, so that two nodes never hand out the same number. A table whose
     * ids came from a sequence by default could not be restored from a dump; the application names every id itself.
     */
    private function sequences(string $increment): void
    {
        foreach (DB::table('record_types')->pluck('name') as $type) {
            DB::statement("ALTER SEQUENCE `records_{$type}_ids` {$increment}");
            DB::statement("ALTER TABLE `records_{$type}` ALTER id DROP DEFAULT");
        }
    }
};
