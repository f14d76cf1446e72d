import { Box, Span, Strong } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { dayAndTime } from '@/shared/dates'
import { mayRun, type Session } from '@/shared/people/session'
import { span, useHealth } from './useHealth'

/** Above every place: what is wrong with the house itself, and what to do about it. */
export function HouseHealth({
  admitted,
  session,
}: {
  admitted: boolean
  session: Session | undefined
}) {
  const health = useHealth(admitted).data
  if (!health) return null
  const keeper = mayRun(session)
  return (
    <>
      {health.restoring && (
        <Band title="The house is being restored from a copy">
          Everything can be read; nothing is stored until that is done.
        </Band>
      )}
      {health.damage.length > 0 && !health.restoring && (
        <Band urgent title="The house’s file is damaged">
          Nothing new is stored, so that it does not get worse; what can be read is shown. Go on
          writing on paper.{' '}
          {keeper ? (
            <>
              <ToBackups>Restore the house from a backup</ToBackups>, or stop Sandboa and use{' '}
              <code>sandboa restore</code>. Have the disk looked at.
            </>
          ) : (
            'Tell a keeper: the house can be restored from a backup.'
          )}
          <Found>{health.damage[0]}</Found>
        </Band>
      )}
      {health.changed.length > 0 && (
        <Band urgent title="Something recorded was changed from outside Sandboa">
          A disk may have changed it, or a person with another program.{' '}
          {keeper ? (
            <>
              <ToBackups>Go back to a backup from before, or accept it as it is</ToBackups>.
            </>
          ) : (
            'Tell a keeper.'
          )}
          <Found>
            {health.changed[0]}
            {health.changed.length > 1 && `, and ${health.changed.length - 1} more`}
          </Found>
        </Band>
      )}
      {health.clock_behind_s > 0 && (
        <Band urgent title="The clock of the house’s computer is wrong">
          It is {span(health.clock_behind_s)} behind what is recorded already. Set it right before
          anything is entered: days and forecasts follow it.
        </Band>
      )}
      {health.watch_late && (
        <Band urgent title="Nobody watches the cabinets">
          {health.looked_at
            ? `Sandboa last looked at them ${dayAndTime(health.looked_at)}.`
            : 'Sandboa has not looked at them yet.'}{' '}
          Alarms may be missing: start Sandboa again, and look at the thermometers yourself.
        </Band>
      )}
    </>
  )
}

function Band({
  title,
  urgent = false,
  children,
}: {
  title: string
  urgent?: boolean
  children: ReactNode
}) {
  return (
    <Box
      role={urgent ? 'alert' : 'status'}
      px={{ base: 4, md: 8 }}
      py={3}
      bg={urgent ? 'vesselSoft' : 'faint'}
      borderBottom="2px solid"
      borderColor={urgent ? 'vessel' : 'soft'}
      _print={{ display: 'none' }}
    >
      <Box maxWidth="73.5rem" mx="auto">
        <Strong fontWeight="heavy" color={urgent ? 'vessel' : 'ink'}>
          {title}.
        </Strong>{' '}
        {children}
      </Box>
    </Box>
  )
}

function ToBackups({ children }: { children: ReactNode }) {
  return (
    <Link to="/settings/backups">
      <Span fontWeight="bold" textDecoration="underline">
        {children}
      </Span>
    </Link>
  )
}

function Found({ children }: { children: ReactNode }) {
  return (
    <Span display="block" color="soft" fontSize="small">
      Found: {children}
    </Span>
  )
}
