<?php

declare(strict_types=1);

use App\Store\Ledger\OneWay;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Rules and their pages, the ledger, tasks, and what is pencilled in. */
return new class extends OneWay
{
    public function up(): void
    {
        $name = static fn (Blueprint $table, string $column) => $table->string($column, 40)->charset('ascii')->collation('ascii_bin');

        Schema::create('rules', function (Blueprint $table) use ($name): void {
            $table->id();
            $name($table, 'record_type')->index();
            $table->string('name', 80);
            $table->string('status', 16);
            $table->unsignedInteger('position');
            $table->unsignedInteger('page')->nullable()->comment('the page in force or last in force');
            $table->json('draft')->nullable()->comment('the rule file being written, while it differs from the page');
            $table->unsignedInteger('draft_version')->default(1);
            $table->dateTime('draft_at')->nullable();
            $table->foreignId('draft_by')->nullable()->constrained('people');
            $table->dateTime('created_at');
        });
        Schema::create('rule_pages', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('rule_id')->constrained('rules');
            $table->unsignedInteger('number');
            $table->json('file');
            $table->dateTime('published_at');
            $table->foreignId('published_by')->constrained('people');
            $table->unique(['rule_id', 'number']);
        });
        // Which page was in force when, so that any past moment can be explained.
        Schema::create('rule_spells', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('rule_id')->constrained('rules');
            $table->unsignedInteger('page');
            $table->unsignedBigInteger('from_entry');
            $table->unsignedBigInteger('to_entry')->nullable();
            $table->index(['rule_id', 'from_entry']);
        });
        // The index of the rules in force by what they watch: "+" for creation, "*" for any field, or a field's name.
        Schema::create('rule_watches', function (Blueprint $table) use ($name): void {
            $name($table, 'record_type');
            $name($table, 'watch');
            $table->foreignId('rule_id')->constrained('rules');
            $table->primary(['record_type', 'watch', 'rule_id']);
        });
        Schema::create('entries', function (Blueprint $table) use ($name): void {
            $table->id();
            $table->string('kind', 24);
            $table->dateTime('at');
            $table->foreignId('actor_id')->nullable();
            $table->string('via', 10)->default('person');
            $name($table, 'record_type')->nullable();
            $table->unsignedBigInteger('record_id')->nullable();
            $table->unsignedInteger('version')->nullable()->comment('of the record after a save');
            $table->foreignId('rule_id')->nullable();
            $table->unsignedInteger('page')->nullable();
            $table->unsignedBigInteger('task_id')->nullable();
            $table->unsignedBigInteger('cause_id')->nullable()->comment('the entry that led to this one');
            $table->json('data');
            $table->index(['record_type', 'record_id', 'id']);
            $table->index(['rule_id', 'id']);
            $table->index(['kind', 'id']);
            $table->index('cause_id');
        });
        Schema::create('field_history', function (Blueprint $table) use ($name): void {
            $table->id();
            $table->unsignedBigInteger('entry_id')->index();
            $name($table, 'record_type');
            $table->unsignedBigInteger('record_id');
            $name($table, 'field');
            $table->json('before')->nullable();
            $table->json('after')->nullable();
            $table->index(['record_type', 'record_id', 'entry_id']);
        });
        Schema::create('guard_keys', function (Blueprint $table) use ($name): void {
            $table->unsignedBigInteger('rule_id');
            $name($table, 'record_type');
            $table->unsignedBigInteger('record_id');
            $table->string('guard_key', 120)->charset('ascii')->collation('ascii_bin');
            $table->unsignedBigInteger('entry_id');
            $table->primary(['rule_id', 'record_type', 'record_id', 'guard_key']);
        });
        Schema::create('tasks', function (Blueprint $table) use ($name): void {
            $table->id();
            $table->string('title', 200);
            $name($table, 'record_type');
            $table->unsignedBigInteger('record_id');
            $table->foreignId('assignee_id')->nullable();
            $table->unsignedBigInteger('rule_id')->nullable();
            $table->unsignedBigInteger('entry_id')->comment('the entry that gave it');
            $table->string('status', 10)->default('open');
            $table->dateTime('given_at');
            $table->dateTime('due_at')->nullable();
            $table->dateTime('done_at')->nullable();
            $table->foreignId('done_by')->nullable();
            $table->index(['assignee_id', 'status', 'due_at']);
            $table->index(['status', 'due_at']);
            $table->index(['record_type', 'record_id']);
        });
        Schema::create('scheduled_lines', function (Blueprint $table) use ($name): void {
            $table->id();
            $table->string('kind', 24);
            $table->string('status', 10)->default('pencilled');
            $table->dateTime('due_at');
            $name($table, 'record_type');
            $table->unsignedBigInteger('record_id');
            $table->unsignedBigInteger('task_id')->nullable();
            $table->unsignedBigInteger('entry_id')->comment('the entry that pencilled it in');
            $table->string('struck_because', 120)->nullable();
            $table->index(['status', 'due_at']);
            $table->index(['record_type', 'record_id', 'status']);
            $table->index('task_id');
        });
    }
};
