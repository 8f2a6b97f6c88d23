<?php

declare(strict_types=1);

namespace App\Http\Timing;

use App\Http\Moment;
use Illuminate\Foundation\Http\FormRequest;

final class ClockTurnInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['by' => 'nullable|in:hour,day,week,next', 'to' => ['required_without:by', 'nullable', new Moment]];
    }
}
