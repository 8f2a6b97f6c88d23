<?php

declare(strict_types=1);

use App\Store\Ledger\OneWay;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What lines in time need: runs in play, working calendars, ladders, sweeps, turns of the house clock, calendar feeds. */
return new class extends OneWay
{
    public function up(): void
    {
        $name = static fn (Blueprint $table, string $column, int $length = 40) => $table->string($column, $length)->charset('ascii')
            ->collation('ascii_bin');

        Schema::create('calendars', function (Blueprint $table): void {
            $table->id();
            $table->string('name', 60)->unique();
            $table->string('time_zone', 64);
            $table->json('hours')->comment('spans by ISO weekday: {"1": [["09:00", "17:00"]]}');
            $table->json('holidays')->comment('names by date');
            $table->unsignedInteger('version')->default(1);
        });
        Schema::table('company', function (Blueprint $table): void {
            $table->foreignId('calendar_id')->nullable()->constrained('calendars');
        });
        Schema::table('people', function (Blueprint $table): void {
            $table->foreignId('calendar_id')->nullable()->constrained('calendars');
            $table->string('feed', 64)->charset('ascii')->collation('ascii_bin')->nullable()->unique()->comment(
                'hash of the secret of the calendar feed',
            );
        });
        Schema::create('team_calendars', function (Blueprint $table): void {
            $table->string('team', 80)->primary();
            $table->foreignId('calendar_id')->constrained('calendars');
        });
        Schema::create('ladders', function (Blueprint $table): void {
            $table->id();
            $table->string('name', 60)->unique();
            $table->json('rungs');
            $table->unsignedInteger('version')->default(1);
        });
        Schema::create('rule_runs', function (Blueprint $table) use ($name): void {
            $table->id();
            $table->unsignedBigInteger('rule_id');
            $table->unsignedInteger('page');
            $name($table, 'record_type');
            $table->unsignedBigInteger('record_id');
            $table->unsignedBigInteger('entry_id')->comment('the entry that began it');
            $table->dateTime('started_at');
            $name($table, 'status', 10)->default('in_play');
            $table->json('made')->nullable()->comment('type and id of the records its lines made, by name');
            $table->index(['record_type', 'record_id', 'status']);
            $table->index(['rule_id', 'status']);
        });
        Schema::table('scheduled_lines', function (Blueprint $table): void {
            $table->dateTime('due_at')->nullable()->comment('null while it waits for a date or a task')->change();
            $table->unsignedBigInteger('run_id')->nullable()->index();
            $table->unsignedBigInteger('rule_id')->nullable();
            $table->unsignedInteger('page')->nullable();
            $table->unsignedSmallInteger('place')->nullable()->comment('of the line in its page');
            $table->unsignedSmallInteger('turn')->default(1);
            $table->string('said', 200)->default('');
            $table->string('note', 200)->default('')->comment('why it does not come when it would have');
            $table->dropIndex(['status', 'due_at']);
            $table->index(['status', 'due_at', 'id']);
            $table->index(['rule_id', 'status']);
        });
        Schema::table('tasks', function (Blueprint $table) use ($name): void {
            $table->unsignedBigInteger('run_id')->nullable()->index();
            $name($table, 'line_key')->default('');
        });
        Schema::table('entries', function (Blueprint $table): void {
            $table->index('at');
        });
        // How far the sweep of a rule that time sets off has come.
        Schema::create('sweeps', function (Blueprint $table): void {
            $table->unsignedBigInteger('rule_id')->primary();
            $table->dateTime('swept_until');
            $table->dateTime('sweeping_to')->nullable()->comment('while a sweep is on its way');
            $table->unsignedBigInteger('at_id')->default(0)->comment('how far that sweep has come');
        });
        // To whom a message went and when, for the caps that count over all rules.
        Schema::create('message_addresses', function (Blueprint $table): void {
            $table->string('address', 190);
            $table->dateTime('at');
            $table->unsignedBigInteger('message_id');
            $table->primary(['address', 'at', 'message_id']);
        });
        Schema::create('clock_turns', function (Blueprint $table) use ($name): void {
            $table->id();
            $table->dateTime('from_at');
            $table->dateTime('to_at');
            $table->dateTime('reached_at');
            $name($table, 'status', 10)->default('turning');
            $table->foreignId('by_id')->constrained('people');
            $table->unsignedBigInteger('first_entry')->comment('what came into ink has higher numbers');
            $table->unsignedInteger('done')->default(0);
            $table->dateTime('leased_until')->nullable()->comment('in real time');
            $table->index('status');
        });
    }
};
