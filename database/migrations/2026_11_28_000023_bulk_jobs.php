<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Work on many records that goes on by itself: changes of a selection, and imports. What became of each record stays with it. */
return new class extends Migration
{
    public function up(): void
    {
        $word = static fn (Blueprint $table, string $name) => $table->string($name, 16)->charset('ascii')->collation('ascii_bin');
        Schema::create('bulk_jobs', static function (Blueprint $table) use ($word): void {
            $table->id();
            $word($table, 'kind');
            $table->string('record_type', 40)->charset('ascii')->collation('ascii_bin');
            $table->foreignId('by_id')->constrained('people');
            $table->dateTime('at');
            $word($table, 'status');
            $table->json('spec');
            $table->boolean('answered')->default(true);
            $table->unsignedInteger('total')->default(0);
            $table->unsignedInteger('done')->default(0);
            $table->unsignedInteger('saved')->default(0);
            $table->unsignedInteger('refused')->default(0);
            $table->unsignedInteger('undone')->default(0);
            $table->unsignedBigInteger('reached')->default(0);
            $table->dateTime('leased_until')->nullable();
            $table->index(['status', 'id']);
            $table->index(['by_id', 'id']);
        });
        Schema::create('bulk_rows', static function (Blueprint $table) use ($word): void {
            $table->foreignId('job_id')->constrained('bulk_jobs')->cascadeOnDelete();
            $table->unsignedInteger('place');
            $table->unsignedBigInteger('record_id')->nullable();
            $table->unsignedBigInteger('entry_id')->nullable();
            $word($table, 'result')->default('waiting');
            $table->string('said', 300)->default('');
            $table->primary(['job_id', 'place']);
            $table->index(['job_id', 'result', 'place']);
        });
    }

    public function down(): void
    {
        Schema::drop('bulk_rows');
        Schema::drop('bulk_jobs');
    }
};
