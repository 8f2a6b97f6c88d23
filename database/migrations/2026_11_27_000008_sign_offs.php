<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Sign-offs with everybody who was asked, and up to how much money people may sign off. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('people', function (Blueprint $table): void {
            $table->decimal('sign_off_limit', 15, 2)->nullable();
        });
        Schema::create('sign_offs', function (Blueprint $table): void {
            $table->id();
            $table->unsignedBigInteger('rule_id');
            $table->unsignedInteger('page');
            $table->unsignedSmallInteger('place');
            $table->string('line_key', 40)->charset('ascii')->collation('ascii_bin')->default('');
            $table->unsignedBigInteger('run_id')->nullable();
            $table->string('record_type', 40)->charset('ascii')->collation('ascii_bin');
            $table->unsignedBigInteger('record_id');
            $table->unsignedBigInteger('asker_id')->nullable();
            $table->string('why', 500)->default('');
            $table->string('status', 12)->charset('ascii')->collation('ascii_bin');
            $table->unsignedSmallInteger('step');
            $table->unsignedSmallInteger('needed');
            $table->json('queue');
            $table->unsignedBigInteger('entry_id');
            $table->dateTime('started_at');
            $table->dateTime('ended_at')->nullable();
            $table->dateTime('wakes_at')->nullable();
            $table->index(['record_type', 'record_id', 'status']);
            $table->index(['wakes_at']);
            $table->index(['run_id', 'line_key']);
            $table->index(['asker_id', 'status']);
        });
        Schema::create('sign_off_seats', function (Blueprint $table): void {
            $table->id();
            $table->unsignedBigInteger('sign_off_id');
            $table->unsignedSmallInteger('place');
            $table->unsignedSmallInteger('step');
            $table->unsignedBigInteger('person_id');
            $table->dateTime('asked_at');
            $table->dateTime('due_at')->nullable();
            $table->unsignedSmallInteger('round')->default(1);
            $table->unsignedSmallInteger('reminded')->default(0);
            $table->string('state', 12)->charset('ascii')->collation('ascii_bin');
            $table->dateTime('at')->nullable();
            $table->text('comment');
            $table->boolean('by_itself')->default(false);
            $table->unique(['sign_off_id', 'place']);
            $table->index(['person_id', 'state']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('sign_off_seats');
        Schema::dropIfExists('sign_offs');
        Schema::table('people', fn (Blueprint $table) => $table->dropColumn('sign_off_limit'));
    }
};
