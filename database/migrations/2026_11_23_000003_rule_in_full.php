<?php

declare(strict_types=1);

use App\Store\Ledger\OneWay;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What the whole rule needs: guards that can be made ready again, comments, files, followers, turns, messages, runs by hand. */
return new class extends OneWay
{
    public function up(): void
    {
        $name = static fn (Blueprint $table, string $column, int $length = 40) => $table->string($column, $length)->charset('ascii')
            ->collation('ascii_bin');
        $record = static function (Blueprint $table) use ($name): void {
            $name($table, 'record_type');
            $table->unsignedBigInteger('record_id');
        };

        Schema::table('people', function (Blueprint $table): void {
            $table->string('phone', 40)->default('');
        });
        Schema::table('rules', function (Blueprint $table): void {
            $table->string('either_or', 80)->default('')->comment('the either/or set it stands in');
        });
        Schema::table('guard_keys', function (Blueprint $table): void {
            $table->unsignedInteger('epoch')->default(0)->comment('how often the guard had been made ready again');
            $table->dateTime('at')->default('2026-01-01 00:00:00');
        });
        Schema::table('guard_keys', function (Blueprint $table): void {
            $table->dropPrimary();
            $table->primary(['rule_id', 'record_type', 'record_id', 'epoch', 'guard_key']);
        });
        Schema::create('guard_resets', function (Blueprint $table) use ($record): void {
            $table->unsignedBigInteger('rule_id');
            $record($table);
            $table->unsignedInteger('epoch');
            $table->unsignedBigInteger('entry_id');
            $table->primary(['rule_id', 'record_type', 'record_id', 'epoch']);
        });
        Schema::table('tasks', function (Blueprint $table) use ($name): void {
            $table->text('notes')->default('');
            $table->string('priority', 8)->default('normal');
            $name($table, 'about_type')->nullable();
            $table->unsignedBigInteger('about_id')->nullable();
            $table->index(['about_type', 'about_id']);
        });
        Schema::create('comments', function (Blueprint $table) use ($record): void {
            $table->id();
            $record($table);
            $table->text('text');
            $table->foreignId('author_id')->nullable();
            $table->unsignedBigInteger('rule_id')->nullable();
            $table->dateTime('at');
            $table->index(['record_type', 'record_id']);
        });
        Schema::create('files', function (Blueprint $table) use ($record): void {
            $table->id();
            $record($table);
            $table->string('name', 190);
            $table->string('media_type', 120);
            $table->unsignedInteger('bytes');
            $table->foreignId('author_id')->nullable();
            $table->dateTime('at');
            $table->index(['record_type', 'record_id']);
        });
        // Apart, so that listing files reads none of them.
        Schema::create('file_contents', function (Blueprint $table): void {
            $table->unsignedBigInteger('file_id')->primary();
            $table->binary('content');
        });
        Illuminate\Support\Facades\DB::statement('ALTER TABLE file_contents MODIFY content LONGBLOB NOT NULL');
        Schema::create('followers', function (Blueprint $table) use ($record): void {
            $record($table);
            $table->unsignedBigInteger('person_id');
            $table->primary(['record_type', 'record_id', 'person_id']);
            $table->index('person_id');
        });
        Schema::create('team_turns', function (Blueprint $table): void {
            $table->string('team', 80)->primary();
            $table->unsignedBigInteger('person_id');
        });
        Schema::create('named_conditions', function (Blueprint $table) use ($name): void {
            $table->id();
            $name($table, 'record_type');
            $table->string('name', 60);
            $table->json('file');
            $table->unsignedInteger('version')->default(1);
            $table->unique(['record_type', 'name']);
        });
        Schema::create('letters', function (Blueprint $table) use ($name): void {
            $table->id();
            $name($table, 'record_type');
            $table->string('name', 60)->unique();
            $table->unsignedInteger('version')->default(1);
        });
        Schema::create('letter_versions', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('letter_id')->constrained('letters')->cascadeOnDelete();
            $table->unsignedInteger('number');
            $table->string('subject', 200);
            $table->mediumText('body');
            $table->dateTime('at');
            $table->foreignId('by_id')->constrained('people');
            $table->unique(['letter_id', 'number']);
        });
        // Counts up whenever something that rule pages only name is changed, so that no process keeps reading old pages.
        Schema::table('company', function (Blueprint $table): void {
            $table->unsignedBigInteger('kept_version')->default(0);
        });
        Schema::create('messages', function (Blueprint $table) use ($name, $record): void {
            $table->id();
            $name($table, 'key', 64)->unique()->comment('names the message to whoever takes it, so that none counts twice');
            $name($table, 'channel', 8);
            $record($table);
            $table->unsignedBigInteger('rule_id')->nullable();
            $table->unsignedBigInteger('entry_id');
            $table->json('recipients')->comment('to, cc and replyTo');
            $table->unsignedBigInteger('person_id')->nullable()->comment('who reads it, of a note in the application');
            $table->string('subject', 200);
            $table->mediumText('html');
            $table->mediumText('text');
            $name($table, 'status', 10)->default('waiting');
            $table->dateTime('created_at');
            $table->dateTime('next_try_at')->nullable();
            $table->dateTime('leased_until')->nullable();
            $table->unsignedInteger('tries')->default(0);
            $table->string('trouble', 500)->default('');
            $table->dateTime('done_at')->nullable();
            $table->index(['status', 'next_try_at']);
            $table->index(['record_type', 'record_id']);
            $table->index(['person_id', 'id']);
        });
        // On whose accounts a message stands besides the record's.
        Schema::create('message_accounts', function (Blueprint $table) use ($record): void {
            $table->unsignedBigInteger('message_id');
            $record($table);
            $table->primary(['record_type', 'record_id', 'message_id']);
        });
        Schema::create('runs', function (Blueprint $table) use ($name): void {
            $table->id();
            $table->unsignedBigInteger('rule_id');
            $name($table, 'record_type');
            $table->foreignId('by_id')->constrained('people');
            $table->dateTime('at');
            $name($table, 'status', 10)->default('waiting');
            $table->unsignedInteger('total');
            $table->unsignedInteger('done')->default(0);
            $table->unsignedInteger('fired')->default(0);
            $table->dateTime('leased_until')->nullable();
            $table->index('status');
        });
        Schema::create('run_records', function (Blueprint $table): void {
            $table->unsignedBigInteger('run_id');
            $table->unsignedBigInteger('record_id');
            $table->string('result', 12)->default('waiting');
            $table->string('said', 500)->default('');
            $table->unsignedBigInteger('entry_id')->nullable();
            $table->primary(['run_id', 'record_id']);
            $table->index(['run_id', 'result']);
        });
        // The mail room's own shelf: what the stand-in took in, as it came over the wire.
        Schema::create('mail_room', function (Blueprint $table) use ($name): void {
            $table->id();
            $name($table, 'kind', 8);
            $table->string('message_id', 190)->unique();
            $table->dateTime('at');
            $table->string('sender', 190);
            $table->string('recipients', 2000);
            $table->string('subject', 500);
            $table->mediumText('text');
            $table->binary('raw');
        });
        Illuminate\Support\Facades\DB::statement('ALTER TABLE mail_room MODIFY raw LONGBLOB NOT NULL');
    }
};
