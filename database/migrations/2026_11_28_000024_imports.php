<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Files that become records: kept in pieces, so that any worker can read them and none has to hold them, and what is wrong in them. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('import_pieces', static function (Blueprint $table): void {
            $table->foreignId('job_id')->constrained('bulk_jobs')->cascadeOnDelete();
            $table->unsignedSmallInteger('place');
            $table->primary(['job_id', 'place']);
        });
        DB::statement('ALTER TABLE import_pieces ADD COLUMN content MEDIUMBLOB NOT NULL');
        Schema::create('import_problems', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('job_id')->constrained('bulk_jobs')->cascadeOnDelete();
            $table->unsignedInteger('row');
            $table->string('field', 64)->charset('ascii')->collation('ascii_bin')->default('');
            $table->string('said', 300);
            $table->index(['job_id', 'row']);
        });
    }

    public function down(): void
    {
        Schema::drop('import_problems');
        Schema::drop('import_pieces');
    }
};
