<script lang="ts">
    import { Select } from 'flowbite-svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import { show } from '../../state/appearance';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import { say } from '../../state/words';

    /* By day or by night, and with how much contrast: seen at once, on every machine where one signs in. */
    type Chosen = Resources['PreferencesResource'];
    const schemes = [
        { value: '', name: say('As my system does') },
        { value: 'light', name: say('Light') },
        { value: 'dark', name: say('Dark') },
    ];
    const contrasts = [
        { value: '', name: say('As my system does') },
        { value: 'usual', name: say('Usual') },
        { value: 'more', name: say('More contrast') },
    ];

    async function choose(change: Partial<Chosen>) {
        if (!session.me) return;
        show({ ...session.me.preferences, ...change });
        try {
            session.me.preferences = await ask(api.PUT('/api/preferences', { body: change }));
        } catch (thrown) {
            show(session.me.preferences);
            toasts.complain(said(thrown));
        }
    }
    const chosen = (event: Event) => (event.currentTarget as HTMLSelectElement).value || null;
</script>

<h2>Appearance</h2>
<div class="mt-2 grid max-w-xl grid-cols-2 gap-4 max-[640px]:grid-cols-1">
    <label class="grid gap-1 text-[13px] text-ink-2">
        <span>Light or dark</span>
        <Select
            placeholder=""
            value={session.me?.preferences.scheme ?? ''}
            items={schemes}
            onchange={(event) => void choose({ scheme: chosen(event) as Chosen['scheme'] })}
        />
    </label>
    <label class="grid gap-1 text-[13px] text-ink-2">
        <span>Contrast</span>
        <Select
            placeholder=""
            value={session.me?.preferences.contrast ?? ''}
            items={contrasts}
            onchange={(event) => void choose({ contrast: chosen(event) as Chosen['contrast'] })}
        />
    </label>
</div>
