/** A config file with everything that only it can hold, as it is without one; each part is a comment until it is wanted. */
export const configTemplate = `# Settings of zealous-lynx for this folder. Every line is a comment: remove the "#" of what you want to change.
# Options of commands may stand here as well, by their names in camelCase: pages: 200, tabs: 4, workspace: .lynx

# Views: the screens of your visitors. These replace the default views; the shares add up to 1.
#views:
#  - { name: phone, width: 390, height: 844, density: 3, touch: true, share: 0.55 }
#  - { name: tablet, width: 820, height: 1180, density: 2, touch: true, share: 0.07 }
#  - { name: laptop, width: 1366, height: 768, density: 1, touch: false, share: 0.23 }
#  - { name: desktop, width: 1920, height: 1080, density: 1, touch: false, share: 0.15 }

# Networks, besides the built-in ones: milliseconds of a round trip, kilobits a second.
#networks:
#  - { name: harbour-wifi, latency: 60, down: 4000, up: 1000 }

# What counts as enough.
#policy:
#  density: 2                        # device pixels to a CSS pixel that are allowed for
#  formats: [avif, webp]             # besides a picture's own: jpeg, png, webp, avif, gif
#  similarity: 0.991                 # least similarity to the ideal reduction
#  quality: { least: 45, most: 95 }  # where it is searched for
#  widths: 5                         # the most widths that a picture is offered in
#  metadata: drop                    # what stays in refitted files: drop, credit or keep
#  markup: auto                      # how formats are offered: auto, img or picture
#  largerFiles: ask                  # whether a larger file of the same picture may be used: ask, known or never
#  worthwhile: { bytes: 1000, share: 0.01 }  # the least that a new file must save
#  ownHosts: []                      # other hosts whose images can be changed
#  ceilings:                         # rules of thumb, in bytes and pixels
#    area: 200000
#    content: 100000
#    alarm: 200000
#    never: 500000
#    small: 50000
#    smallWidth: 200
#    hero: 1000000
#    side: 1500
#    heroSide: 2560
#    page: 500000
#    slides: 5
#  rules: []                         # what is allowed beyond the need; each has its reason:
#  # - { group: '/makers/*', zoom: 1.5, reason: 'visitors look at the seams' }
#  # - { address: '/img/sponsors/*', exempt: true, reason: 'the sponsors gave these files' }
#  mute: []                          # findings that are none for this site; each has its reason:
#  # - { finding: query-string, address: '/assets/*', reason: 'no cache stands before the server' }

# Page groups by name; other pages are grouped by their templates.
#groups:
#  - { name: articles, pages: ['/journal/*'] }

# Credentials that hosts require; $NAME is a variable of the environment.
#access:
#  - { host: staging.brindlebay.test, basic: { user: editor, password: $STAGING_PASSWORD } }

# Budgets that gate and watch hold the site to; zealous-lynx gate --suggest prints some that hold today.
#budgets:
#  - { measure: bytes, group: '/journal/*', most: 500000, reason: 'light on a slow line' }
#  - { measure: newImage, most: 200000, reason: 'nobody uploads what the camera made' }
#  - { measure: largestContentfulPaint, page: '/', network: mobile, most: 2500, reason: 'good by the rule of thumb' }
#  - { measure: waste, against: autumn, margin: 0.05, reason: 'no worse than in autumn' }
#  - { measure: finding, finding: failed-file, most: 0, reason: 'each costs a round trip' }

# Who is told when a budget stops holding, or the site is down; $NAME is a variable of the environment.
#alarms:
#  - { webhook: 'https://chat.brindlebay.test/alarms', secret: $ALARM_SECRET }
#  - { email: { to: [images@brindlebay.test], from: watch@brindlebay.test, server: 'smtp://mail.brindlebay.test:25' } }
#  - { command: [./tell.sh, --loud] }
`;
