<?php

declare(strict_types=1);

use App\Store\Lists\FoundTexts;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What records of every type are found by, in one place with a full-text index, and the words there are, for those that are misspelt. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('found_texts', static function (Blueprint $table): void {
            $table->id();
            $table->string('record_type', 40)->charset('ascii')->collation('ascii_bin');
            $table->unsignedBigInteger('record_id');
            $table->string('title', 255);
            $table->text('body');
            $table->boolean('is_new')->default(true);
            $table->unique(['record_type', 'record_id']);
            $table->index(['is_new', 'id']);
            $table->index('title');
            $table->fullText('title');
            $table->fullText(['title', 'body']);
        });
        Schema::create('found_words', static function (Blueprint $table): void {
            $table->string('word', 40)->primary();
            $table->unsignedTinyInteger('letters');
            $table->unsignedInteger('records')->default(0);
            $table->index(['letters', 'word']);
        });
        foreach (app(SchemaStore::class)->schema()->types as $type) {
            DB::statement(FoundTexts::fill($type), [$type->name]);
        }
    }

    public function down(): void
    {
        Schema::drop('found_words');
        Schema::drop('found_texts');
    }
};
