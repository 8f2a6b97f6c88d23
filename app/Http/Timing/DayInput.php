<?php

declare(strict_types=1);

namespace App\Http\Timing;

use Illuminate\Foundation\Http\FormRequest;

final class DayInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['date' => 'required|date_format:Y-m-d', 'whose' => 'nullable|in:mine,all'];
    }
}
