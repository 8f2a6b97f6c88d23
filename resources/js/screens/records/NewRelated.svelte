<script lang="ts">
    import { Modal } from 'flowbite-svelte';
    import type { Resources } from '../../api/client';
    import { toasts } from '../../state/toasts.svelte';
    import { go } from '../../router';
    import RecordForm from './RecordForm.svelte';

    /* A record that names the one at hand, written without leaving it. */
    type Props = {
        type: Resources['TypeResource'];
        field: Resources['FieldResource'];
        id: number;
        title: string;
        onclose: () => void;
        onmade: () => void;
    };
    let { type, field, id, title, onclose, onmade }: Props = $props();
    let open = $state(true);
    $effect(() => {
        if (!open) onclose();
    });

    function made(answer: Resources['SavedResource']) {
        const fired = answer.fired.map((one) => one.name).join(', ');
        toasts.tell(`${answer.record.number} is created.${fired ? ` ${fired} fired.` : ''}`, {
            label: 'Open it',
            run: () => go(`/records/${type.name}/${answer.record.id}`),
        });
        open = false;
        onmade();
    }
</script>

<Modal bind:open size="lg" dismissable={false} classes={{ body: 'p-0 flex max-h-[78vh] flex-col' }}>
    <RecordForm
        {type}
        record={null}
        preset={{ [field.name]: id }}
        presetShown={{ [field.name]: title }}
        onsaved={made}
        oncancel={() => (open = false)}
    />
</Modal>
