<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Reply slips that were sent, with everybody whose turn it was, and those kept in Setup, in versions. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('slip_forms', function (Blueprint $table): void {
            $table->id();
            $table->string('record_type', 40)->charset('ascii')->collation('ascii_bin');
            $table->string('name', 60)->unique();
            $table->unsignedInteger('version')->default(1);
        });
        Schema::create('slip_form_versions', function (Blueprint $table): void {
            $table->id();
            $table->unsignedBigInteger('form_id');
            $table->unsignedInteger('number');
            $table->string('subject', 200);
            $table->mediumText('body');
            $table->json('asks');
            $table->dateTime('at');
            $table->unsignedBigInteger('by_id');
            $table->unique(['form_id', 'number']);
            $table->foreign('form_id')->references('id')->on('slip_forms')->cascadeOnDelete();
        });
        Schema::create('slips', function (Blueprint $table): void {
            $table->id();
            $table->unsignedBigInteger('rule_id');
            $table->unsignedInteger('page');
            $table->unsignedSmallInteger('place');
            $table->string('line_key', 40)->charset('ascii')->collation('ascii_bin')->default('');
            $table->unsignedBigInteger('run_id')->nullable();
            $table->string('record_type', 40)->charset('ascii')->collation('ascii_bin');
            $table->unsignedBigInteger('record_id');
            $table->string('subject', 200);
            $table->mediumText('html');
            $table->json('asks');
            $table->string('status', 12)->charset('ascii')->collation('ascii_bin');
            $table->json('chosen');
            $table->json('given')->nullable();
            $table->json('said')->nullable();
            $table->json('draft')->nullable();
            $table->unsignedBigInteger('entry_id');
            $table->dateTime('started_at');
            $table->dateTime('ended_at')->nullable();
            $table->dateTime('wakes_at')->nullable();
            $table->index(['record_type', 'record_id', 'id']);
            $table->index(['wakes_at']);
            $table->index(['run_id', 'line_key']);
            $table->index(['status', 'id']);
            $table->index(['entry_id']);
        });
        Schema::create('slip_turns', function (Blueprint $table): void {
            $table->id();
            $table->unsignedBigInteger('slip_id');
            $table->unsignedSmallInteger('place');
            $table->string('name', 190);
            $table->json('mail')->nullable();
            $table->json('text')->nullable();
            $table->unsignedBigInteger('person_id')->nullable();
            $table->string('candidate_type', 40)->charset('ascii')->collation('ascii_bin')->default('');
            $table->unsignedBigInteger('candidate_id')->nullable();
            $table->string('state', 12)->charset('ascii')->collation('ascii_bin');
            $table->dateTime('sent_at');
            $table->dateTime('due_at')->nullable();
            $table->unsignedSmallInteger('nudged')->default(0);
            $table->dateTime('ended_at')->nullable();
            $table->unsignedInteger('link')->default(1);
            $table->char('token_hash', 64)->charset('ascii')->collation('ascii_bin')->nullable()->unique();
            $table->unique(['slip_id', 'place']);
            $table->index(['person_id', 'state']);
            $table->index(['candidate_type', 'candidate_id', 'state']);
        });
        Schema::table('messages', function (Blueprint $table): void {
            $table->unsignedBigInteger('slip_turn_id')->nullable();
            $table->unsignedInteger('slip_link')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('messages', fn (Blueprint $table) => $table->dropColumn(['slip_turn_id', 'slip_link']));
        foreach (['slip_turns', 'slips', 'slip_form_versions', 'slip_forms'] as $table) {
            Schema::dropIfExists($table);
        }
    }
};
