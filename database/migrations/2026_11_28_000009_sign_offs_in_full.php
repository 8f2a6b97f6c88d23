<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Locks and what they hold back, questions asked back, routes that are kept, and who stands in for whom and when. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('sign_offs', function (Blueprint $table): void {
            $table->string('hold', 10)->charset('ascii')->collation('ascii_bin')->default('nothing');
            $table->boolean('released')->default(false)->comment('whether the record is free again and what waited for that is taken up');
            $table->json('route')->nullable()->comment('the steps as they were then, where the page only names them');
            $table->index(['status', 'started_at']);
            $table->index('entry_id');
        });
        Schema::table('sign_off_seats', function (Blueprint $table): void {
            $table->unsignedBigInteger('for_id')->nullable();
            $table->dateTime('held_at')->nullable();
            $table->json('talk')->nullable();
            $table->unsignedBigInteger('task_id')->nullable()->index();
            $table->index(['person_id', 'state', 'sign_off_id']);
            $table->dropIndex(['person_id', 'state']);
        });
        Schema::table('messages', function (Blueprint $table): void {
            $table->unsignedBigInteger('sign_off_id')->nullable();
        });
        Schema::create('held_changes', function (Blueprint $table): void {
            $table->id();
            $table->unsignedBigInteger('sign_off_id')->index();
            $table->unsignedBigInteger('rule_id');
            $table->unsignedInteger('page');
            $table->string('record_type', 40)->charset('ascii')->collation('ascii_bin');
            $table->unsignedBigInteger('record_id');
            $table->json('before')->nullable();
            $table->json('event')->nullable();
            $table->unsignedBigInteger('actor_id')->nullable();
            $table->string('via', 8)->charset('ascii')->collation('ascii_bin');
        });
        Schema::create('sign_off_routes', function (Blueprint $table): void {
            $table->id();
            $table->string('name', 60)->unique();
            $table->string('record_type', 40)->charset('ascii')->collation('ascii_bin');
            $table->json('steps');
            $table->unsignedInteger('version')->default(1);
        });
        Schema::table('people', function (Blueprint $table): void {
            $table->json('sign_off_limits')->nullable()->comment('limits that differ for a record type, by its name');
            $table->foreignId('deputy_id')->nullable()->constrained('people');
            $table->boolean('away')->default(false);
            $table->foreignId('stand_in_id')->nullable()->constrained('people');
        });
        Schema::create('absences', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('person_id')->constrained('people');
            $table->foreignId('deputy_id')->nullable()->constrained('people');
            $table->dateTime('starts_at');
            $table->dateTime('ends_at');
            $table->string('state', 8)->charset('ascii')->collation('ascii_bin')->default('ahead');
            $table->index(['state', 'starts_at']);
            $table->index(['person_id', 'ends_at']);
        });
    }

    public function down(): void
    {
        foreach (['absences', 'sign_off_routes', 'held_changes'] as $table) {
            Schema::dropIfExists($table);
        }
        Schema::table('messages', fn (Blueprint $table) => $table->dropColumn('sign_off_id'));
        Schema::table('people', function (Blueprint $table): void {
            $table->dropConstrainedForeignId('stand_in_id');
            $table->dropConstrainedForeignId('deputy_id');
            $table->dropColumn(['away', 'sign_off_limits']);
        });
        Schema::table('sign_off_seats', function (Blueprint $table): void {
            $table->index(['person_id', 'state']);
            $table->dropIndex(['person_id', 'state', 'sign_off_id']);
            $table->dropColumn(['for_id', 'held_at', 'talk', 'task_id']);
        });
        Schema::table('sign_offs', function (Blueprint $table): void {
            $table->dropIndex(['status', 'started_at']);
            $table->dropIndex(['entry_id']);
            $table->dropColumn(['hold', 'released', 'route']);
        });
    }
};
