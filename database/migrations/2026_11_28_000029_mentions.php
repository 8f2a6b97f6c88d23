<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Who was named in a comment; and by which way each person wants to hear what happened for them. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('mentions', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('comment_id');
            $table->foreignId('person_id');
            $table->foreignId('by_id')->nullable();
            $table->string('record_type', 40)->charset('ascii')->collation('ascii_bin');
            $table->unsignedBigInteger('record_id');
            $table->string('text', 200);
            $table->dateTime('at');
            $table->unique(['comment_id', 'person_id']);
            $table->index(['person_id', 'at']);
        });
        Schema::table('people', static function (Blueprint $table): void {
            $table->json('notice_ways')->nullable();
            $table->dateTime('notices_since')->nullable()->comment('when they chose the ways');
            $table->dateTime('notices_sent_until')->nullable();
            $table->dateTime('morning_sent_at')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('people', static function (Blueprint $table): void {
            $table->dropColumn(['notice_ways', 'notices_since', 'notices_sent_until', 'morning_sent_at']);
        });
        Schema::drop('mentions');
    }
};
