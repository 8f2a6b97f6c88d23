<?php

declare(strict_types=1);

namespace App\Http\Timing;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class DayInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['date' => 'required|date_format:Y-m-d', 'whose' => 'nullable|in:mine,all'];
    }

    public function meant(): array
    {
        return [
            'date' => 'Such as 2026-11-24.',
            'whose' => 'Left out, all that one may see.',
        ];
    }
}
