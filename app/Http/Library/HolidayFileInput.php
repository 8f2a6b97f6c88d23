<?php

declare(strict_types=1);

namespace App\Http\Library;

use Illuminate\Foundation\Http\FormRequest;

final class HolidayFileInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['text' => 'required|string|max:2000000'];
    }
}
