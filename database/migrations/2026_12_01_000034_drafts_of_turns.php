<?php

declare(strict_types=1);

use App\Models\Slips\SlipTurnRow;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;
use VividLedger\Slip\TurnState;

/** What somebody has typed on a slip and not sent belongs to their turn; whoever is asked after them does not see it. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('slip_turns', static function (Blueprint $table): void {
            $table->json('draft')->nullable();
        });
        SlipTurnRow::rows()->where('state', TurnState::Waiting)->update([
            'draft' => DB::raw('(SELECT s.draft FROM slips s WHERE s.id = slip_turns.slip_id)'),
        ]);
        Schema::table('slips', static function (Blueprint $table): void {
            $table->dropColumn('draft');
        });
    }

    public function down(): void
    {
        Schema::table('slips', static function (Blueprint $table): void {
            $table->json('draft')->nullable();
        });
        Schema::table('slip_turns', static function (Blueprint $table): void {
            $table->dropColumn('draft');
        });
    }
};
