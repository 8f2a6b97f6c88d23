<?php

declare(strict_types=1);

use App\Store\Ledger\OneWay;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Proofs: rehearsals kept as tests of a rule, with the facts they were played on. Reversals of entries. Why a page was published. */
return new class extends OneWay
{
    public function up(): void
    {
        Schema::create('proofs', function (Blueprint $table): void {
            $table->id();
            $table->unsignedBigInteger('rule_id')->index();
            $table->string('name', 120);
            $table->json('script')->comment('record, opening and what-ifs');
            $table->json('facts')->comment('every other record it looks at');
            $table->json('expected')->comment('what happens, line by line');
            $table->json('actual')->nullable()->comment('what happened when it was played last, where that differs');
            $table->boolean('holds')->default(true);
            $table->string('checked_stand', 40)->default('')->comment('of the rules and all they name, when it was played last');
            $table->dateTime('kept_at');
            $table->foreignId('kept_by')->constrained('people');
            $table->dateTime('accepted_at')->nullable();
            $table->unsignedBigInteger('accepted_by')->nullable();
        });
        // Which entries were reversed, each once.
        Schema::create('reversals', function (Blueprint $table): void {
            $table->unsignedBigInteger('entry_id')->primary();
            $table->unsignedBigInteger('by_entry')->index();
        });
        Schema::table('rule_pages', function (Blueprint $table): void {
            $table->string('why', 200)->default('')->comment('why it was published');
        });
    }
};
