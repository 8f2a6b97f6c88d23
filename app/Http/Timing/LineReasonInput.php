<?php

declare(strict_types=1);

namespace App\Http\Timing;

use Illuminate\Foundation\Http\FormRequest;

final class LineReasonInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['why' => 'present|nullable|string'];
    }
}
